import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { learn } from "@/screens/kitchen/learn";
import { Adding } from "@/screens/kitchen/adding";
import { NumberField, Select } from "@/ui/field";
import { degrees, fromCelsius, toCelsius } from "@/units";
import { say } from "@/say";

const COLD_KINDS: Record<Shapes["ColdOut"]["kind"], string> = {
  fridge: say("kitchen.with_a_fan"),
  still_fridge: say("kitchen.still_or_crammed"),
  blast: say("kitchen.blast_chiller"),
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
        {say("kitchen.cold")}
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
                label={say("kitchen.room_for_trays_in", { cold: cold.name })}
                bare
                value={cold.trays}
                low={1}
                high={400}
                unit={say("kitchen.trays")}
                disabled={!canEdit}
                stored
                onValue={(v) => correct.mutate({ ...cold, trays: Math.round(v) })}
              />
            </div>
          </li>
        ))}
        {kitchen.colds.length === 0 && (
          <li className="text-soft">{say("kitchen.none_yet_an_ordinary_one_is")}</li>
        )}
      </ul>
      <CoolRule />
      <Adding
        word={say("kitchen.a_refrigerator")}
        placeholder={say("kitchen.reach_in_left")}
        add={(name) =>
          must(
            client.POST("/api/k/{kid}/colds", {
              params: { path: { kid } },
              body: { name, kind, air_c: air, trays },
            }),
          )
        }
      >
        <Select label={say("kitchen.kind")} value={kind} options={COLD_KINDS} onValue={setKind} />
        <NumberField
          key={units}
          label={say("kitchen.its_air")}
          value={Math.round(fromCelsius(air, units))}
          low={Math.round(fromCelsius(-40, units))}
          high={Math.round(fromCelsius(15, units))}
          unit={units === "us" ? "°F" : "°C"}
          onValue={(v) => setAir(toCelsius(v, units))}
        />
        <NumberField
          label={say("kitchen.trays_it_has_room_for")}
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
        {say("kitchen.cooling_rule_to_in_h_in", {
          from_c: degrees(rule.from_c, units),
          mid_c: degrees(rule.mid_c, units),
          mid_min: rule.mid_min / 60,
          end_c: degrees(rule.end_c, units),
          end_min: rule.end_min / 60,
        })}
      </summary>
      {open && (
        <div className="grid grid-cols-2 gap-4">
          {temp(say("kitchen.from"), "from_c", 20, 90)}
          {temp(say("kitchen.through"), "mid_c", 0, 60)}
          <NumberField
            label={say("kitchen.within")}
            value={rule.mid_min / 60}
            low={0.25}
            high={24}
            step={0.5}
            unit="h"
            disabled={!canEdit}
            stored
            onValue={(v) => change.mutate({ mid_min: Math.round(v * 60) })}
          />
          {temp(say("kitchen.to"), "end_c", -5, 20)}
          <NumberField
            label={say("kitchen.in_all")}
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
