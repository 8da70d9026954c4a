import { useQuery } from "@tanstack/react-query";

import { client, must, type Shapes } from "@/api/client";
import { Slice } from "@/figures/slice";
import type { Units } from "@/units";

/** The dessert cut open as far as it is built: what is laid inked, the layer at hand in front. */
export function Layered({
  kid,
  batch,
  at,
  units,
}: {
  kid: string;
  batch: Shapes["BatchOut"];
  at: string;
  units: Units;
}) {
  const build = useQuery({
    queryKey: ["build", kid, batch.dessert_id],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/desserts/{dessert_id}/build", {
          params: { path: { kid, dessert_id: batch.dessert_id } },
        }),
      ),
    staleTime: 60_000,
  });
  const found = build.data?.found;
  const steps = batch.plan.steps;
  const now = steps.findIndex((s) => s.key === at);
  // Up to the layer of this step, or the next one that is laid.
  const next = steps.slice(now).find((s) => s.kind === "lay");
  const count = next ? Number(next.key.split("_")[1]) + 1 : Infinity;
  if (!found || found.layers.length === 0) return null;
  const layers = found.layers.slice(0, count);
  const build_ = { ...found, layers };
  return (
    <div className="mx-auto max-w-[52rem]">
      <Slice
        build={build_}
        units={units}
        chosen={next ? layers.length - 1 : null}
        choose={() => undefined}
      />
    </div>
  );
}
