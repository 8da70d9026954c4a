import type { Shapes } from "@/api/client";
import { Slice } from "@/figures/slice";
import type { Units } from "@/units";

/** The dessert cut open as far as it is built, the layer at hand in front. */
export function Layered({
  batch,
  at,
  units,
}: {
  batch: Shapes["BatchOut"];
  at: string;
  units: Units;
}) {
  const { cut, steps } = batch.plan;
  if (!cut || cut.layers.length === 0) return null;
  // Up to the layer of this step, or the next one that is laid.
  const now = steps.findIndex((s) => s.key === at);
  const next = steps.slice(now).find((s) => s.kind === "lay");
  const laid = steps.slice(0, now).filter((s) => s.kind === "lay").length;
  const layers = cut.layers.slice(0, laid + (next ? 1 : 0));
  return (
    <div className="mx-auto max-w-[34rem]">
      <Slice
        build={{ ...cut, layers }}
        units={units}
        chosen={next ? layers.length - 1 : null}
        choose={() => undefined}
      />
    </div>
  );
}
