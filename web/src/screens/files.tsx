import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { newId } from "@/keep/id";
import { Button } from "@/ui/button";

type Read = Shapes["ReadDessert"];
const FORMS = [
  ["json", "Bell Crumb’s own", "everything: parts, versions, notes, vessels"],
  ["jsonld", "schema.org recipe", "JSON-LD that recipe programs and search engines read"],
  ["text", "plain text", "to read, to send, to paste"],
  ["csv", "table", "one row a line, for a spreadsheet"],
] as const;
const STRETCH = 20;

/** Formulas in and out of the kitchen in open formats. */
export default function Files() {
  const { kid, canEdit } = useBench();
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
          <ul>
            {FORMS.map(([form, name, words]) => (
              <li key={form} className="rule-b">
                <a
                  className="flex min-h-14 items-baseline justify-between gap-4 py-3 hover:underline"
                  href={`/api/k/${kid}/export?form=${form}`}
                  download
                >
                  <b>{name}</b>
                  <span className="caption text-right">{words}</span>
                </a>
              </li>
            ))}
          </ul>
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
  const read = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.set("file", file);
      return must(
        client.POST("/api/k/{kid}/import/read", {
          params: { path: { kid } },
          body: { file: file.name },
          bodySerializer: () => form,
        }),
      );
    },
    onSuccess: (out) => setFound(out.desserts),
  });
  const keep = useMutation({
    mutationFn: async (desserts: Read[]) => {
      const ready = desserts.map((d) => ({ id: newId(), name: d.name, parts: d.parts }));
      for (let from = 0; from < ready.length; from += STRETCH) {
        await must(
          client.POST("/api/k/{kid}/import/keep", {
            params: { path: { kid } },
            body: { desserts: ready.slice(from, from + STRETCH) },
          }),
        );
        setKept(Math.min(ready.length, from + STRETCH));
      }
    },
    onSuccess: () => void store.invalidateQueries({ queryKey: ["shelf", kid] }),
  });
  const take = (file: File | undefined) => {
    if (!file) return;
    setName(file.name);
    setFound(null);
    setKept(0);
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
        <p role="status" className="mt-3 italic">
          Reading {name} …
        </p>
      )}
      {error instanceof ApiError && (
        <p role="alert" className="mt-3 text-burnt">
          {error.message}
        </p>
      )}
      {found && (
        <Report
          found={found}
          kept={kept}
          busy={keep.isPending}
          done={keep.isSuccess}
          onKeep={() => keep.mutate(found)}
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
}

function Report({ found, kept, busy, done, onKeep }: ReportProps) {
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
      {busy || done ? (
        <div className="mt-2">
          <progress className="h-3 w-full max-w-md accent-burnt" max={found.length} value={kept} />
          <p className="caption" role="status">
            {done ? `All ${found.length} are on the shelf.` : `${kept} of ${found.length} kept …`}
          </p>
        </div>
      ) : (
        <Button kind="act" className="mt-3" onClick={onKeep}>
          {doubted.length ? "Keep them all, doubts and all" : "Keep them all"}
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
