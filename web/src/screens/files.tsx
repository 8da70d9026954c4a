import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { newId } from "@/keep/id";
import { Button } from "@/ui/button";
import { Refused } from "@/ui/states";

type Read = Shapes["ReadDessert"];
const FORMS = [
  ["json", "Bell Crumb’s own", "everything: parts, versions, notes, vessels"],
  ["jsonld", "schema.org recipe", "JSON-LD that recipe programs and search engines read"],
  ["text", "plain text", "to read, to send, to paste"],
  ["csv", "table", "one row a line, for a spreadsheet"],
] as const;
const STRETCH = 20;
/** Desserts of a file read in one go. */
const READ_AT_ONCE = 100;

/** Formulas in and out of the kitchen in open formats. */
export default function Files() {
  const { canEdit } = useBench();
  return (
    <div className="py-6">
      <title>In and out · Bell Crumb</title>
      <h1 className="mb-5 text-4xl">In and out</h1>
      <div className="grid gap-x-14 gap-y-9 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]">
        <section aria-labelledby="in">
          <h2 id="in" className="mb-2 text-2xl">
            Take formulas in
          </h2>
          {canEdit ? <TakeIn /> : <p className="text-soft">Only the pastry chef takes them in.</p>}
        </section>
        <section aria-labelledby="out">
          <h2 id="out" className="mb-2 text-2xl">
            Write all of them out
          </h2>
          <WriteOut />
          <p className="caption mt-2">One dessert alone is written out from its bench card.</p>
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
      <p className="mb-3 max-w-prose text-soft">
        A file in any of these forms, with one recipe or thousands: our own, schema.org JSON-LD
        (also a saved web page), a table with a header, or plain text with a line of dashes between
        recipes. Nothing is kept before you have seen what was understood.
      </p>
      <input
        ref={chooser}
        type="file"
        aria-label="File of formulas"
        className="sr-only"
        accept=".json,.jsonld,.csv,.tsv,.txt,.md,.html,.htm"
        onChange={(event) => {
          take(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      <Button onClick={() => chooser.current?.click()} disabled={read.isPending || keep.isPending}>
        Choose a file
      </Button>{" "}
      <span className="caption">or drop it here</span>
      {read.isPending && (
        <Progress
          said={progress.of ? `Read ${progress.done} of ${progress.of} …` : `Reading ${name} …`}
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
        <b>{found.length}</b> {found.length === 1 ? "dessert" : "desserts"}, {lines} lines:{" "}
        <b>{sure}</b> understood
        {lines > sure && (
          <>
            , <b>{lines - sure}</b> in doubt
          </>
        )}
        .
      </p>
      {busy && (
        <Progress
          said={`${kept} of ${found.length} kept …`}
          done={kept}
          of={found.length}
          onStop={onStop}
        />
      )}
      {done && <p role="status">All {found.length} are on the shelf.</p>}
      {!busy && !done && (
        <Button kind="act" className="mt-3" onClick={onKeep}>
          {kept > 0
            ? `Stopped: ${kept} are on the shelf. Keep the other ${found.length - kept}`
            : doubted.length
              ? "Keep them all, doubts and all"
              : "Keep them all"}
        </Button>
      )}
      {doubted.length > 0 && (
        <>
          <p className="caption mt-4">
            What was doubtful. The lines are kept as they are written, and asked about again at the
            bench.
          </p>
          <ul className="max-h-[26rem] overflow-auto" tabIndex={0} aria-label="Doubtful lines">
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
      <Button onClick={onStop}>Stop</Button>
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
        throw new Error(body.message ?? "Nothing could be written out.");
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
          said={`Writing them out: ${Math.round(bytes / 1000)} kB …`}
          done={0}
          of={0}
          onStop={() => stop?.abort()}
        />
      )}
      {out.isSuccess && (
        <p role="status" className="mt-3">
          {out.data} desserts, {Math.max(1, Math.round(bytes / 1000))} kB, saved.
        </p>
      )}
      {out.isError && (
        <p role="alert" className="mt-3 text-burnt">
          {stopped ? "Stopped: nothing was saved." : out.error.message}
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
