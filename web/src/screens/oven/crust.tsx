import type { ReactNode } from "react";

import type { Shapes } from "@/api/client";
import { useCrust, type Content } from "@/api/queries";
import { useBench } from "@/bench";
import { CrustSection, SoggyClock } from "@/figures/crust";
import { bakingOf, type Baking } from "@/screens/oven/baking";
import { NumberField, Select } from "@/ui/field";
import { Why } from "@/ui/why";
import { degrees, fromCelsius, said, toCelsius } from "@/units";

const BLIND: Partial<Record<Baking["blind"], string>> = {
  weights: "weights, then uncovered",
  frozen: "docked and frozen, no weights",
  hot_start: "hot start, so the rim stands",
};
/** Doughs that leave no choice of school. */
const OWN: Partial<Record<Shapes["CrustOut"]["school"], string>> = {
  crumb: "crumb base, pressed",
  choux: "choux: piped, pierced, dried with the door ajar",
  puff: "puff sheets: free, under a tray, uncovered",
  sponge: "sponge, spread on paper",
  frangipane: "almond cream, baked in its shell",
};
const GOES: Record<Baking["goes"], string> = {
  baked_in: "a custard that bakes in it",
  cold_filling: "a cold filling",
  hot_filling: "a hot filling that sets in it",
};
const BARRIER: Record<Baking["barrier"], string> = {
  none: "nothing",
  egg_wash: "egg, dried in the oven",
  butter: "butter, brushed",
  chocolate: "chocolate or cocoa butter",
};

/** A crust: its blind bake stage by stage, and how long it stays crisp. */
export function CrustPlan({
  content,
  set,
  kind,
  off,
  parts,
}: {
  content: Content;
  set: (part: Partial<Baking>) => void;
  kind: Shapes["PartOut"]["kind"];
  off: boolean;
  parts: ReactNode;
}) {
  const { kid, units, kitchen } = useBench();
  const b = bakingOf(content);
  const crust = useCrust(kid, content, kind);
  const unit = units === "us" ? "°F" : "°C";
  const pick = (
    label: string,
    key: "blind" | "goes" | "barrier",
    words: Record<string, string>,
  ) => (
    <Select
      label={label}
      value={b[key]}
      disabled={off}
      onChange={(event) => set({ [key]: event.target.value })}
    >
      {Object.entries(words).map(([value, name]) => (
        <option key={value} value={value}>
          {name}
        </option>
      ))}
    </Select>
  );
  const found = crust.data;
  const own = found && OWN[found.school];
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 md:grid-cols-[15rem_minmax(0,1fr)] xl:grid-cols-[15rem_minmax(0,1fr)_minmax(0,1fr)]">
      <section aria-label="Crust and oven" className="space-y-4">
        {parts}
        <Select
          label="Oven"
          value={b.oven_id ?? kitchen.ovens[0]?.id ?? ""}
          disabled={off}
          onChange={(event) => set({ oven_id: Number(event.target.value) || null })}
        >
          {kitchen.ovens.length === 0 && <option value="">an ordinary static oven</option>}
          {kitchen.ovens.map((o) => (
            <option key={o.id} value={o.id}>
              {o.name}, {o.kind}
            </option>
          ))}
        </Select>
        {own ? (
          <p>
            <span className="caption block">School</span>
            {own}
          </p>
        ) : (
          pick("School", "blind", BLIND)
        )}
        {pick("What goes in", "goes", GOES)}
        {found && found.school !== "choux" && (
          <NumberField
            label={found.school === "crumb" ? "Pressed" : "Dough, rolled"}
            value={b.dough_mm ?? found.dough_mm}
            low={1}
            high={30}
            step={0.5}
            unit="mm"
            disabled={off}
            onValue={(v) => set({ dough_mm: v })}
          />
        )}
        {pick("Between crust and filling", "barrier", BARRIER)}
        <NumberField
          key={`filled${units}`}
          label="Filling put in at"
          value={Math.round(fromCelsius(b.filled_c, units))}
          low={Math.round(fromCelsius(-5, units))}
          high={Math.round(fromCelsius(100, units))}
          unit={unit}
          disabled={off}
          onValue={(v) => set({ filled_c: Math.round(toCelsius(v, units) * 10) / 10 })}
        />
      </section>
      {found && (
        <>
          <section aria-label="Blind bake">
            <h2 className="mb-2 text-2xl">
              {own ? "The bake" : "Blind bake"}
              <Why about="the stages" reason={found.reasons[0]} />
            </h2>
            <CrustSection way={found.school} />
            <ol data-testid="crust-stages">
              {found.stages.map((s, n) => (
                <li key={s.title} className="rule-b grid grid-cols-[1.6rem_1fr_auto] gap-x-2 py-2">
                  <span className="display text-xl italic">{n + 1}</span>
                  <span>
                    <b className="block">{s.title}</b>
                    <span className="text-soft">{s.sign}</span>
                  </span>
                  <span className="text-right whitespace-nowrap">
                    <b>
                      {Math.round(s.from_min)}–{Math.round(s.to_min)} min
                    </b>
                    <span className="caption block">at {degrees(s.oven_c, units)}</span>
                  </span>
                </li>
              ))}
            </ol>
            <p className="mt-2 text-lg">{said(found.how_far, units)}</p>
            <p className="mt-1">
              {found.shield} Cold enough to fill after {Math.round(found.cool_min)} min on a rack: a
              warm shell softens at once.
            </p>
          </section>
          <section
            aria-label="How long it stays crisp"
            className="md:col-start-2 xl:col-start-auto"
          >
            <h2 className="mb-2 text-2xl">
              The soggy clock
              <Why about="the hours it stays crisp" reason={found.reasons[1]} />
            </h2>
            <SoggyClock crispH={found.crisp_h} softH={found.soft_h} />
            <p className="mt-2 text-lg" data-testid="soggy">
              {said(found.soggy, units)}
            </p>
            <p className="caption mt-1">
              Hours within three times; the order of the coats is sure. A pinhole takes most of a
              coat’s worth.
            </p>
          </section>
        </>
      )}
    </div>
  );
}
