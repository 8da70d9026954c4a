import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { useBench } from "@/bench";
import { Progress } from "@/ui/progress";
import { say } from "@/say";

const FORMS = [
  ["json", say("files.bell_crumbs_own"), say("files.everything_parts_versions_notes_vessels")],
  ["jsonld", say("files.schema_org_recipe"), say("files.json_ld_that_recipe_programs_and")],
  ["text", say("files.plain_text"), say("files.to_read_to_send_to_paste")],
  ["csv", say("files.table"), say("files.one_row_a_line_for_a")],
] as const;

/** Every dessert as one file: written as it arrives, shown how far, and stopped when asked. */
export function WriteOut() {
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
