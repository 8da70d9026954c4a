import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Refused } from "@/ui/states";
import { say } from "@/say";

/** Lay the file of any logger into the batch: its columns and units are found, and said. */
export function CurveFile({ batch }: { batch: Shapes["BatchOut"] }) {
  const { kid, canCook } = useBench();
  const store = useQueryClient();
  const chooser = useRef<HTMLInputElement>(null);
  const send = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.set("file", file);
      return must(
        client.POST("/api/k/{kid}/batches/{batch_id}/curve", {
          params: { path: { kid, batch_id: batch.id } },
          body: { file: file.name },
          bodySerializer: () => form,
        }),
      );
    },
    onSuccess: () => void store.invalidateQueries({ queryKey: ["batch", kid, batch.id] }),
  });
  if (!canCook) return null;
  const read = send.data;
  return (
    <div className="mt-2">
      <input
        ref={chooser}
        type="file"
        aria-label={say("batch.file_of_a_logger")}
        className="sr-only"
        accept=".csv,.txt,.tsv"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) send.mutate(file);
          event.target.value = "";
        }}
      />
      <Button kind="quiet" className="!px-0" onClick={() => chooser.current?.click()}>
        {say("batch.add_a_loggers_curve")}
      </Button>
      {read && (
        <p role="status" data-testid="curve-read">
          {say("batch.readings_from_in_times_from", {
            kept: read.kept,
            temp_column: read.temp_column,
            unit: read.unit,
            time_column: read.time_column,
            already_there:
              read.already_there > 0 &&
              say("batch.were_already_there", { already_there: read.already_there }),
            read: read.said.join(" "),
          })}
        </p>
      )}
      <Refused error={send.error} />
    </div>
  );
}
