import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { newId } from "@/keep/id";
import { Button } from "@/ui/button";
import { Refused } from "@/ui/states";
import { Say, say } from "@/say";

type Read = Shapes["ReadDessert"];
const FORMS = [
  ["json", say("files.bell_crumbs_own"), say("files.everything_parts_versions_notes_vessels")],
  ["jsonld", say("files.schema_org_recipe"), say("files.json_ld_that_recipe_programs_and")],
  ["text", say("files.plain_text"), say("files.to_read_to_send_to_paste")],
  ["csv", say("files.table"), say("files.one_row_a_line_for_a")],
] as const;
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
        desserts.push(...stretch.desserts);
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
        const ready = stretch.map((d) => ({ id: newId(), name: d.name, parts: d.parts }));
        if (stopper.signal.aborted) throw new DOMException("stopped", "AbortError");
        await must(
          client.POST("/api/k/{kid}/import/keep", {
            params: { path: { kid } },
            body: { desserts: ready },
          }),
        );
        setKept(from + stretch.length);
      }
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
          onKeep={() => keep.mutate(found)}
          onStop={() => stop?.abort()}
        />
      )}
    </div>
  );
}

interface ReportProps {
  found: Read[];
  kept: number;
  busy: boolean;
  done: boolean;
  onKeep: () => void;
  onStop: () => void;
}

function Report({ found, kept, busy, done, onKeep, onStop }: ReportProps) {
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
      {done && <p role="status">{say("files.all_are_on_the_shelf", { found: found.length })}</p>}
      {!busy && !done && (
        <Button kind="act" className="mt-3" onClick={onKeep}>
          {kept > 0
            ? say("files.stopped_are_on_the_shelf_keep", { kept, found: found.length - kept })
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

interface ProgressProps {
  said: string;
  done: number;
  of: number;
  onStop: () => void;
}

/** How far long work is, and a way to stop it. */
function Progress({ said, done, of, onStop }: ProgressProps) {
  return (
    <div className="mt-3 flex flex-wrap items-center gap-4">
      <p role="status" className="italic">
        {said}
      </p>
      {of > 0 && (
        <progress
          className="h-3 w-full max-w-64 accent-burnt"
          max={of}
          value={done}
          aria-label={said}
        />
      )}
      <Button onClick={onStop}>{say("files.stop")}</Button>
    </div>
  );
}

/** Every dessert as one file: written as it arrives, shown how far, and stopped when asked. */
function WriteOut() {
  const { kid } = useBench();
  const [stop, setStop] = useState<AbortController | null>(null);
  const [bytes, setBytes] = useState(0);
  const out = useMutation({
    mutationFn: async (form: string) => {
      const stopper = new AbortController();
      setStop(stopper);
      setBytes(0);
      const answer = await fetch(`/api/k/${kid}/export?form=${form}`, { signal: stopper.signal });
      if (!answer.ok || !answer.body) {
        const body = (await answer.json().catch(() => ({}))) as { message?: string };
        throw new Error(body.message ?? say("files.nothing_could_be_written_out"));
      }
      const parts: BlobPart[] = [];
      for (const reader = answer.body.getReader(); ;) {
        const { done, value } = await reader.read();
        if (done) break;
        parts.push(value);
        setBytes((before) => before + value.length);
      }
      save(
        new Blob(parts),
        /filename="([^"]+)"/.exec(answer.headers.get("Content-Disposition") ?? "")?.[1],
      );
      return answer.headers.get("X-Desserts") ?? "";
    },
    onSettled: () => setStop(null),
  });
  const stopped = out.error instanceof DOMException;
  return (
    <>
      <ul>
        {FORMS.map(([form, name, words]) => (
          <li key={form} className="rule-b">
            <button
              type="button"
              className="flex min-h-14 w-full items-baseline justify-between gap-4 py-3 text-left hover:underline"
              disabled={out.isPending}
              onClick={() => out.mutate(form)}
            >
              <b>{name}</b>
              <span className="caption text-right">{words}</span>
            </button>
          </li>
        ))}
      </ul>
      {out.isPending && (
        <Progress
          said={say("files.writing_them_out_kb", { bytes: Math.round(bytes / 1000) })}
          done={0}
          of={0}
          onStop={() => stop?.abort()}
        />
      )}
      {out.isSuccess && (
        <p role="status" className="mt-3">
          {say("files.desserts_kb_saved", {
            out: out.data,
            it: Math.max(1, Math.round(bytes / 1000)),
          })}
        </p>
      )}
      {out.isError && (
        <p role="alert" className="mt-3 text-burnt">
          {stopped ? say("files.stopped_nothing_was_saved") : out.error.message}
        </p>
      )}
    </>
  );
}

function save(blob: Blob, name = "formulas"): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
