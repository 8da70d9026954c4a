import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { learn } from "@/screens/kitchen/learn";
import { Adding } from "@/screens/kitchen/adding";
import { NumberField, Select } from "@/ui/field";
import { degrees, fromCelsius, toCelsius } from "@/units";

const COLD_KINDS: Record<Shapes["ColdOut"]["kind"], string> = {
  fridge: "with a fan",
  still_fridge: "still or crammed",
  blast: "blast chiller",
};

/** Refrigerators and chillers, and the air they really have. */
export function Colds() {
  const { kid, kitchen, units, canEdit } = useBench();
  const store = useQueryClient();
  const [kind, setKind] = useState<Shapes["ColdOut"]["kind"]>("fridge");
  const [air, setAir] = useState(3);
  const [trays, setTrays] = useState(12);
  const correct = useMutation({
    mutationFn: ({ name: known, kind: its, air_c, trays: room }: Shapes["ColdOut"]) =>
      must(
        client.POST("/api/k/{kid}/colds", {
          params: { path: { kid } },
          body: { name: known, kind: its, air_c, trays: room },
        }),
      ),
    onSuccess: (next) => learn(store, kid, next),
  });
  return (
    <section aria-labelledby="colds">
      <h2 id="colds" className="mb-2 text-2xl">
        Cold
      </h2>
      <ul>
        {kitchen.colds.map((cold) => (
          <li key={cold.id} className="rule-b flex items-center justify-between gap-4 py-2">
            <span>
              {cold.name}
              <span className="caption block">
                {COLD_KINDS[cold.kind]}, {degrees(cold.air_c, units)}
              </span>
            </span>
            <div className="w-28">
              <NumberField
                label={`Room for trays in ${cold.name}`}
                bare
                value={cold.trays}
                low={1}
                high={400}
                unit="trays"
                disabled={!canEdit}
                stored
                onValue={(v) => correct.mutate({ ...cold, trays: Math.round(v) })}
              />
            </div>
          </li>
        ))}
        {kitchen.colds.length === 0 && (
          <li className="text-soft">None yet: an ordinary one is taken.</li>
        )}
      </ul>
      <CoolRule />
      <Adding
        word="a refrigerator"
        placeholder="Reach-in, left"
        add={(name) =>
          must(
            client.POST("/api/k/{kid}/colds", {
              params: { path: { kid } },
              body: { name, kind, air_c: air, trays },
            }),
          )
        }
      >
        <Select
          label="Kind"
          value={kind}
          onChange={(event) => setKind(event.target.value as typeof kind)}
        >
          {Object.entries(COLD_KINDS).map(([key, word]) => (
            <option key={key} value={key}>
              {word}
            </option>
          ))}
        </Select>
        <NumberField
          key={units}
          label="Its air"
          value={Math.round(fromCelsius(air, units))}
          low={Math.round(fromCelsius(-40, units))}
          high={Math.round(fromCelsius(15, units))}
          unit={units === "us" ? "°F" : "°C"}
          onValue={(v) => setAir(toCelsius(v, units))}
        />
        <NumberField
          label="Trays it has room for"
          value={trays}
          low={1}
          high={400}
          onValue={(v) => setTrays(Math.round(v))}
        />
      </Adding>
    </section>
  );
}

/** The kitchen’s own two-stage rule; the local code comes first. */
function CoolRule() {
  const { kid, kitchen, units, canEdit } = useBench();
  const store = useQueryClient();
  const rule = kitchen.cool_rule;
  const [open, setOpen] = useState(false);
  const change = useMutation({
    mutationFn: (part: Partial<Shapes["RuleIn"]>) =>
      must(
        client.PATCH("/api/k/{kid}", {
          params: { path: { kid } },
          body: { cool_rule: { ...rule, ...part } },
        }),
      ),
    onSuccess: (next) => learn(store, kid, next),
  });
  const temp = (label: string, key: "from_c" | "mid_c" | "end_c", low: number, high: number) => (
    <NumberField
      key={`${key}${units}`}
      label={label}
      value={Math.round(fromCelsius(rule[key], units))}
      low={Math.round(fromCelsius(low, units))}
      high={Math.round(fromCelsius(high, units))}
      unit={units === "us" ? "°F" : "°C"}
      disabled={!canEdit}
      stored
      onValue={(v) => change.mutate({ [key]: toCelsius(v, units) })}
    />
  );
  return (
    <details className="mt-2" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-12 py-3">
        Cooling rule: {degrees(rule.from_c, units)} to {degrees(rule.mid_c, units)} in{" "}
        {rule.mid_min / 60} h, {degrees(rule.end_c, units)} in {rule.end_min / 60} h
      </summary>
      {open && (
        <div className="grid grid-cols-2 gap-4">
          {temp("From", "from_c", 20, 90)}
          {temp("Through", "mid_c", 0, 60)}
          <NumberField
            label="Within"
            value={rule.mid_min / 60}
            low={0.25}
            high={24}
            step={0.5}
            unit="h"
            disabled={!canEdit}
            stored
            onValue={(v) => change.mutate({ mid_min: Math.round(v * 60) })}
          />
          {temp("To", "end_c", -5, 20)}
          <NumberField
            label="In all"
            value={rule.end_min / 60}
            low={0.5}
            high={48}
            step={0.5}
            unit="h"
            disabled={!canEdit}
            stored
            onValue={(v) => change.mutate({ end_min: Math.round(v * 60) })}
          />
        </div>
      )}
    </details>
  );
}
