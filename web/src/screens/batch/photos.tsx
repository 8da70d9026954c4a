import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Serving } from "@/figures/glass";
import { newId } from "@/keep/id";
import { Button } from "@/ui/button";
import { Refused } from "@/ui/states";
import { DOES } from "@/words";

/** The cut face: pictures of a batch, from the tablet’s camera or a file. */
export function Photos({ batch }: { batch: Shapes["BatchOut"] }) {
  const { kid, canCook } = useBench();
  const store = useQueryClient();
  const chooser = useRef<HTMLInputElement>(null);
  const seen = (photos: Shapes["PhotoOut"][]) =>
    store.setQueryData<Shapes["BatchOut"]>(
      ["batch", kid, batch.id],
      (now) => now && { ...now, photos },
    );
  const add = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.set("file", file);
      return must(
        client.POST("/api/k/{kid}/batches/{batch_id}/photos/{photo_id}", {
          params: { path: { kid, batch_id: batch.id, photo_id: newId() } },
          body: { file: file.name },
          bodySerializer: () => form,
        }),
      );
    },
    onSuccess: seen,
  });
  const drop = useMutation({
    mutationFn: (photo_id: string) =>
      must(
        client.DELETE("/api/k/{kid}/batches/{batch_id}/photos/{photo_id}", {
          params: { path: { kid, batch_id: batch.id, photo_id } },
        }),
      ),
    onSuccess: seen,
  });
  if (!canCook && batch.photos.length === 0) return null;
  return (
    <section aria-label="The cut face" className="mt-5">
      <h2 className="mb-1 text-2xl">The cut face</h2>
      <ul className="flex flex-wrap gap-4">
        {batch.photos.length > 0 && batch.predicted_class && (
          <li className="w-44 text-center" data-testid="as-predicted">
            <Serving klass={batch.predicted_class} size={170} />
            <p className="caption">
              predicted: {DOES[batch.predicted_class]}
              {batch.verdict?.texture && `; judged: ${DOES[batch.verdict.texture]}`}
            </p>
          </li>
        )}
        {batch.photos.map((photo, n) => (
          <li key={photo.id} className="max-w-72">
            <img
              src={`/api/k/${kid}/batches/${batch.id}/photos/${photo.id}`}
              width={photo.width}
              height={photo.height}
              alt={`Picture ${n + 1} of ${batch.dessert}${photo.by ? `, by ${photo.by}` : ""}`}
              className="h-auto w-full border-[1.5px] border-ink"
            />
            {canCook && (
              <Button
                kind="quiet"
                className="no-print !px-0"
                disabled={drop.isPending}
                aria-label={`Take picture ${n + 1} out`}
                onClick={() => drop.mutate(photo.id)}
              >
                Take it out
              </Button>
            )}
          </li>
        ))}
      </ul>
      {canCook && (
        <>
          <input
            ref={chooser}
            type="file"
            aria-label="A picture of the cut face"
            className="sr-only"
            tabIndex={-1}
            accept="image/jpeg,image/png,image/webp"
            capture="environment"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) add.mutate(file);
              event.target.value = "";
            }}
          />
          <Button
            kind="quiet"
            className="no-print !px-0"
            disabled={add.isPending}
            onClick={() => chooser.current?.click()}
          >
            {add.isPending ? "Taking it in …" : "Add a picture"}
          </Button>
          <p className="caption no-print">
            Kept small, without place or camera, for this kitchen only.
          </p>
        </>
      )}
      <Refused error={add.error ?? drop.error} />
    </section>
  );
}
