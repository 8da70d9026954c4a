import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { newId } from "@/keep/id";
import { KINDS } from "@/screens/formula/part";
import { WriteOut } from "@/screens/write-out";
import { Button } from "@/ui/button";
import { Progress } from "@/ui/progress";
import { Refused } from "@/ui/states";
import { Say, say } from "@/say";

/** A dessert as it was read, under the name it is kept by: sent twice, it is still one. */
type Read = Shapes["ReadDessert"] & { id: string };
const STRETCH = 20;
/** Desserts of a file read in one go. */
const READ_AT_ONCE = 100;

/** Formulas in and out of the kitchen in open formats. */
export default function Files() {
  const { canEdit } = useBench();
  return (
    <div className="py-6">
      <title>{say("files.in_and_out_bell_crumb")}</title>
      <h1 className="mb-5 text-4xl">{say("files.in_and_out")}</h1>
      <div className="grid gap-x-14 gap-y-9 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]">
        <section aria-labelledby="in">
          <h2 id="in" className="mb-2 text-2xl">
            {say("files.take_formulas_in")}
          </h2>
          {canEdit ? (
            <TakeIn />
          ) : (
            <p className="text-soft">{say("files.only_the_pastry_chef_takes_them")}</p>
          )}
        </section>
        <section aria-labelledby="out">
          <h2 id="out" className="mb-2 text-2xl">
            {say("files.write_all_of_them_out")}
          </h2>
          <WriteOut />
          <p className="caption mt-2">{say("files.one_dessert_alone_is_written_out")}</p>
        </section>
      </div>
    </div>
  );
}

function TakeIn() {
  const { kid } = useBench();
  const store = useQueryClient();
  const chooser = useRef<HTMLInputElement>(null);
  const [name, setName] = useState("");
  const [pasted, setPasted] = useState("");
  const [alone, setAlone] = useState<string | null>(null);
  const [found, setFound] = useState<Read[] | null>(null);
  const [kept, setKept] = useState(0);
  const [progress, setProgress] = useState({ done: 0, of: 0 });
  const [stop, setStop] = useState<AbortController | null>(null);
  const read = useMutation({
    mutationFn: async (file: File) => {
      const stopper = new AbortController();
      setStop(stopper);
      const desserts: Read[] = [];
      for (let total = Infinity; desserts.length < total;) {
        const form = new FormData();
        form.set("file", file);
        const stretch = await must(
          client.POST("/api/k/{kid}/import/read", {
            params: { path: { kid }, query: { skip: desserts.length, take: READ_AT_ONCE } },
            body: { file: file.name },
            bodySerializer: () => form,
            signal: stopper.signal,
          }),
        );
        desserts.push(...stretch.desserts.map((d) => ({ ...d, id: newId() })));
        total = stretch.desserts.length ? stretch.total : desserts.length;
        setProgress({ done: desserts.length, of: total });
      }
      return desserts;
    },
    onSuccess: setFound,
    onSettled: () => setStop(null),
  });
  const keep = useMutation({
    mutationFn: async (desserts: Read[]) => {
      const stopper = new AbortController();
      setStop(stopper);
      for (let from = kept; from < desserts.length; from += STRETCH) {
        const stretch = desserts.slice(from, from + STRETCH);
        const ready = stretch.map(({ id, name, parts }) => ({ id, name, parts }));
        if (stopper.signal.aborted) throw new DOMException("stopped", "AbortError");
        await must(
          client.POST("/api/k/{kid}/import/keep", {
            params: { path: { kid } },
            body: { desserts: ready },
          }),
        );
        setKept(from + stretch.length);
        setAlone(desserts.length === 1 ? (ready[0]?.id ?? null) : null);
      }
      setPasted("");
    },
    onSettled: () => {
      setStop(null);
      void store.invalidateQueries({ queryKey: ["shelf", kid] });
    },
  });
  const take = (file: File | undefined) => {
    if (!file) return;
    setName(file.name);
    setFound(null);
    setKept(0);
    setProgress({ done: 0, of: 0 });
    setAlone(null);
    keep.reset();
    read.mutate(file);
  };
  const error = read.error ?? keep.error;
  return (
    <div
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        take(event.dataTransfer.files[0]);
      }}
    >
      <p className="mb-3 max-w-prose text-soft">{say("files.a_file_in_any_of_these")}</p>
      <input
        ref={chooser}
        type="file"
        aria-label={say("files.file_of_formulas")}
        className="sr-only"
        accept=".json,.jsonld,.csv,.tsv,.txt,.md,.html,.htm"
        onChange={(event) => {
          take(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      <Button onClick={() => chooser.current?.click()} disabled={read.isPending || keep.isPending}>
        {say("files.choose_a_file")}
      </Button>{" "}
      <span className="caption">{say("files.or_drop_it_here")}</span>
      <label className="mt-5 block">
        <span className="caption">{say("files.or_paste_a_recipe_as_it")}</span>
        <textarea
          className="field min-h-40"
          maxLength={400_000}
          value={pasted}
          placeholder={say("files.pasted_example")}
          onChange={(event) => setPasted(event.target.value)}
        />
      </label>
      <Button
        className="mt-3"
        disabled={!pasted.trim() || read.isPending || keep.isPending}
        onClick={() => take(new File([pasted], say("files.what_was_pasted")))}
      >
        {say("files.read_it")}
      </Button>
      {read.isPending && (
        <Progress
          said={
            progress.of
              ? say("files.read_of", { done: progress.done, of: progress.of })
              : say("files.reading", { name })
          }
          done={progress.done}
          of={progress.of}
          onStop={() => stop?.abort()}
        />
      )}
      <Refused error={error} className="mt-3" />
      {found && (
        <Report
          found={found}
          kept={kept}
          busy={keep.isPending}
          done={keep.isSuccess}
          alone={alone}
          onKeep={() => keep.mutate(found)}
          onStop={() => stop?.abort()}
        />
      )}
    </div>
  );
}

const FEW = 3; // so many are shown with their parts
const lineCount = (part: Read["parts"][0]) =>
  part.versions
    .at(-1)
    ?.lines_text.split("\n")
    .filter((line) => line.trim()).length ?? 0;

interface ReportProps {
  found: Read[];
  kept: number;
  busy: boolean;
  done: boolean;
  /** The one dessert that was kept, to be opened. */
  alone: string | null;
  onKeep: () => void;
  onStop: () => void;
}

function Report({ found, kept, busy, done, alone, onKeep, onStop }: ReportProps) {
  const { kid } = useBench();
  const lines = found.reduce((sum, d) => sum + d.lines, 0);
  const sure = found.reduce((sum, d) => sum + d.sure, 0);
  const doubted = found.filter((d) => d.doubts.length > 0 || d.problems.length > 0);
  return (
    <div className="mt-4" data-testid="import-report">
      <p className="text-lg" role="status">
        <Say
          code="files.desserts_lines_understood"
          values={{
            found: found.length,
            lines,
            sure,
            lines2: lines > sure && (
              <>
                <Say
                  code="files.in_doubt"
                  values={{ lines: lines - sure }}
                  components={{ b: <b /> }}
                />
              </>
            ),
          }}
          components={{ b: <b /> }}
        />
      </p>
      {busy && (
        <Progress
          said={say("files.of_kept", { kept, found: found.length })}
          done={kept}
          of={found.length}
          onStop={onStop}
        />
      )}
      {found.length <= FEW &&
        found.map((dessert, i) => (
          <p key={i} className="mt-1">
            <b>{dessert.name}</b>
            {dessert.parts.map((part, n) => (
              <span key={n} className="caption">
                {" · "}
                {part.name && part.name.toLowerCase() !== KINDS[part.kind]
                  ? say("files.part_of_kind", { part: part.name, kind: KINDS[part.kind] })
                  : KINDS[part.kind]}{" "}
                {say("files.of_lines", { lines: lineCount(part) })}
              </span>
            ))}
          </p>
        ))}
      {done && alone === null && (
        <p role="status">{say("files.all_are_on_the_shelf", { found: found.length })}</p>
      )}
      {done && alone !== null && (
        <p role="status">
          {say("files.it_is_on_the_shelf")}{" "}
          <Link className="way" to={`/k/${kid}/d/${alone}`}>
            {say("files.open_it", { name: found[0]?.name ?? "" })}
          </Link>
        </p>
      )}
      {!busy && !done && (
        <Button kind="act" className="mt-3" onClick={onKeep}>
          {kept > 0
            ? say("files.stopped_are_on_the_shelf_keep", { kept, found: found.length - kept })
            : found.length === 1
              ? doubted.length
                ? say("files.keep_it_doubts_and_all")
                : say("files.keep_it")
              : doubted.length
                ? say("files.keep_them_all_doubts_and_all")
                : say("files.keep_them_all")}
        </Button>
      )}
      {doubted.length > 0 && (
        <>
          <p className="caption mt-4">{say("files.what_was_doubtful_the_lines_are")}</p>
          <ul
            className="max-h-[26rem] overflow-auto"
            tabIndex={0}
            aria-label={say("files.doubtful_lines")}
          >
            {doubted.map((d, i) => (
              <li key={i} className="rule-b py-2">
                <b>{d.name}</b>
                {d.problems.map((p) => (
                  <p key={p} className="text-burnt">
                    {p}
                  </p>
                ))}
                {d.doubts.map((doubt, k) => (
                  <p key={k}>
                    <span className={doubt.unknown ? "text-burnt" : ""}>{doubt.line || "–"}</span>{" "}
                    <span className="caption">{doubt.message}</span>
                  </p>
                ))}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
