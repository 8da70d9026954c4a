import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Serving } from "@/figures/glass";
import { SendIds } from "@/keep/id";
import { Button } from "@/ui/button";
import { Refused } from "@/ui/states";
import { DOES } from "@/words";
import { say } from "@/say";

/** Which picture a file is, as far as can be told without reading it. */
const fingerprint = (file: File) => `${file.name} ${file.size} ${file.lastModified}`;

/** The cut face: pictures of a batch, from the tablet’s camera or a file. */
export function Photos({ batch }: { batch: Shapes["BatchOut"] }) {
  const { kid, canCook } = useBench();
  const store = useQueryClient();
  const [ids] = useState(() => new SendIds());
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
          params: { path: { kid, batch_id: batch.id, photo_id: ids.of(fingerprint(file)) } },
          body: { file: file.name },
          bodySerializer: () => form,
        }),
      );
    },
    onSuccess: (photos, file) => {
      ids.arrived(fingerprint(file));
      seen(photos);
    },
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
    <section aria-label={say("batch.the_cut_face")} className="mt-5">
      <h2 className="mb-1 text-2xl">{say("batch.the_cut_face")}</h2>
      <ul className="flex flex-wrap gap-4">
        {batch.photos.length > 0 && batch.predicted_class && (
          <li className="w-44 text-center" data-testid="as-predicted">
            <Serving klass={batch.predicted_class} size={170} />
            <p className="caption">
              {say("batch.predicted", {
                does: DOES[batch.predicted_class],
                texture:
                  batch.verdict?.texture &&
                  say("batch.judged", { does: DOES[batch.verdict.texture] }),
              })}
            </p>
          </li>
        )}
        {batch.photos.map((photo, n) => (
          <li key={photo.id} className="max-w-72">
            <img
              src={`/api/k/${kid}/batches/${batch.id}/photos/${photo.id}`}
              width={photo.width}
              height={photo.height}
              alt={say("batch.picture_of", {
                n: n + 1,
                dessert: batch.dessert,
                by: photo.by ? say("batch.by", { by: photo.by }) : "",
              })}
              className="h-auto w-full border-[1.5px] border-ink"
            />
            {canCook && (
              <Button
                kind="quiet"
                className="no-print !px-0"
                disabled={drop.isPending}
                aria-label={say("batch.take_picture_out", { n: n + 1 })}
                onClick={() => drop.mutate(photo.id)}
              >
                {say("batch.take_it_out")}
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
            aria-label={say("batch.a_picture_of_the_cut_face")}
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
            {add.isPending ? say("batch.taking_it_in") : say("batch.add_a_picture")}
          </Button>
          <p className="caption no-print">{say("batch.kept_small_without_place_or_camera")}</p>
        </>
      )}
      <Refused error={add.error ?? drop.error} />
    </section>
  );
}
