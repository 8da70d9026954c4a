import { useMutation, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Input, NumberField, Select } from "@/ui/field";
import { Refused } from "@/ui/states";
import { degrees, fromCelsius, kelvins, said, toCelsius, type Units } from "@/units";

type Oven = Shapes["OvenOut"];

/** Take in the changed kitchen; what was asked of its ovens and colds before is asked again. */
function learn(store: QueryClient, kid: string, next: Shapes["KitchenOut"]): void {
  store.setQueryData(["kitchen", kid], next);
  for (const asked of ["bake", "convert", "crust", "cool"]) {
    void store.invalidateQueries({ queryKey: [asked, kid] });
  }
}

const about = (oven: Oven, units: Units) => {
  const off = Math.abs(oven.dial_error_k);
  const dial =
    off < 0.5
      ? "true to its dial"
      : `${kelvins(off, units, 0)} ${oven.dial_error_k < 0 ? "cooler" : "hotter"} than its dial`;
  return `${oven.kind}, ${dial}, ${oven.measured ? "measured" : "not measured"}`;
};

/** The kitchen’s ovens with their dial error, and the walk that measures it. */
export function Ovens() {
  const { kid, kitchen, units, canEdit } = useBench();
  const store = useQueryClient();
  const [adding, setAdding] = useState(false);
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Oven["kind"]>("static");
  const [off, setOff] = useState(0);
  const [walking, setWalking] = useState<number | null>(null);
  const add = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/ovens", {
          params: { path: { kid } },
          body: { name: name.trim(), kind, dial_error_k: off, measured: false },
        }),
      ),
    onSuccess: (next) => {
      learn(store, kid, next);
      setAdding(false);
      setName("");
    },
  });
  return (
    <section aria-labelledby="ovens">
      <h2 id="ovens" className="mb-2 text-2xl">
        Ovens
      </h2>
      <ul>
        {kitchen.ovens.map((oven) => (
          <li key={oven.id} className="rule-b py-1">
            <div className="flex items-center justify-between gap-3">
              <span>
                {oven.name}
                <span className="caption block">{about(oven, units)}</span>
              </span>
              {canEdit && (
                <Button
                  kind="quiet"
                  className="!px-2"
                  aria-expanded={walking === oven.id}
                  aria-label={`Measure ${oven.name}`}
                  onClick={() => setWalking(walking === oven.id ? null : oven.id)}
                >
                  measure
                </Button>
              )}
            </div>
            {walking === oven.id && <Walk oven={oven} />}
          </li>
        ))}
      </ul>
      {canEdit && !adding && (
        <Button className="mt-3" onClick={() => setAdding(true)}>
          Add an oven
        </Button>
      )}
      {adding && (
        <form
          className="mt-3 grid gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) add.mutate();
          }}
        >
          <Input
            label="Name"
            value={name}
            maxLength={60}
            placeholder="Hatch oven"
            error={add.error instanceof ApiError ? add.error.message : null}
            onChange={(event) => setName(event.target.value)}
          />
          <div className="grid grid-cols-2 gap-4">
            <Select
              label="Air"
              value={kind}
              onChange={(event) => setKind(event.target.value as Oven["kind"])}
            >
              <option value="static">static</option>
              <option value="fan">fan</option>
            </Select>
            <NumberField
              key={units}
              label="Above its dial"
              value={units === "us" ? off * 1.8 : off}
              low={-80}
              high={80}
              unit={units === "us" ? "°F" : "K"}
              onValue={(v) => setOff(units === "us" ? v / 1.8 : v)}
            />
          </div>
          <div className="flex gap-3">
            <Button type="submit" kind="act" disabled={!name.trim() || add.isPending}>
              Keep it
            </Button>
            <Button onClick={() => setAdding(false)}>Leave it</Button>
          </div>
        </form>
      )}
    </section>
  );
}

/** "0 21" or "0:30; 21,4" a line: minutes in the oven and what the probe in the water shows. */
function readLines(text: string, units: Units): { t_s: number; temp_c: number }[] {
  return text.split("\n").flatMap((line) => {
    const [time = "", temp = ""] = line.trim().split(/[\s;]+/);
    const [m = "", s = "0"] = time.split(":");
    const minutes = Number(m.replace(",", ".")) + Number(s) / 60;
    const value = Number(temp.replace(",", "."));
    if (!temp || Number.isNaN(minutes) || Number.isNaN(value)) return [];
    return [{ t_s: minutes * 60, temp_c: toCelsius(value, units) }];
  });
}

/** One open pan of water in the oven, its temperature every few minutes: three figures fitted. */
function Walk({ oven }: { oven: Oven }) {
  const { kid, units } = useBench();
  const store = useQueryClient();
  const [dial, setDial] = useState(160);
  const [water, setWater] = useState(1000);
  const [shelf, setShelf] = useState("");
  const [text, setText] = useState("");
  const unit = units === "us" ? "°F" : "°C";
  const readings = readLines(text, units);
  const walk = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/ovens/{oven_id}/walk", {
          params: { path: { kid, oven_id: oven.id } },
          body: {
            set_c: dial,
            water_ml: water,
            pan_length_mm: 325,
            pan_width_mm: 265,
            readings,
            shelf_c: shelf.trim() ? toCelsius(Number(shelf.replace(",", ".")), units) : null,
          },
        }),
      ),
    onSuccess: (next) => learn(store, kid, next.kitchen),
  });
  return (
    <form
      className="grid gap-3 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        walk.mutate();
      }}
    >
      <p className="text-soft">
        Heat {oven.name} empty. Put in an open pan of 325 by 265 mm with water, a probe in it, and
        note what it shows every few minutes for half an hour. A thermometer on the shelf helps.
      </p>
      <div className="grid grid-cols-2 gap-4">
        <NumberField
          key={`dial${units}`}
          label="Dial"
          value={Math.round(fromCelsius(dial, units))}
          low={Math.round(fromCelsius(60, units))}
          high={Math.round(fromCelsius(320, units))}
          unit={unit}
          onValue={(v) => setDial(toCelsius(v, units))}
        />
        <NumberField
          label="Water"
          value={water}
          low={200}
          high={20000}
          step={100}
          unit="ml"
          onValue={setWater}
        />
      </div>
      <Input
        label={`Thermometer on the shelf (${unit}, if there is one)`}
        inputMode="decimal"
        value={shelf}
        onChange={(event) => setShelf(event.target.value)}
      />
      <label className="block">
        <span className="caption block">Minutes and {unit} in the water, a line each</span>
        <textarea
          className="field min-h-36 font-mono"
          value={text}
          placeholder={"0 20\n5 27\n10 36\n15 45\n20 53\n25 60\n30 66"}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <p className="caption">
        {readings.length} {readings.length === 1 ? "reading" : "readings"} understood
      </p>
      <Refused error={walk.error} />
      {walk.data && (
        <p role="status" className="border-l-[3px] border-leaf pl-3" data-testid="walked">
          {said(walk.data.found.says, units)}
        </p>
      )}
      <Button type="submit" kind="act" disabled={walk.isPending || readings.length === 0}>
        Fit this oven
      </Button>
    </form>
  );
}

const COLD_KINDS: Record<Shapes["ColdOut"]["kind"], string> = {
  fridge: "with a fan",
  still_fridge: "still or crammed",
  blast: "blast chiller",
};

/** Refrigerators and chillers, and the air they really have. */
export function Colds() {
  const { kid, kitchen, units, canEdit } = useBench();
  const store = useQueryClient();
  const [adding, setAdding] = useState(false);
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Shapes["ColdOut"]["kind"]>("fridge");
  const [air, setAir] = useState(3);
  const add = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/colds", {
          params: { path: { kid } },
          body: { name: name.trim(), kind, air_c: air },
        }),
      ),
    onSuccess: (next) => {
      learn(store, kid, next);
      setAdding(false);
      setName("");
    },
  });
  return (
    <section aria-labelledby="colds">
      <h2 id="colds" className="mb-2 text-2xl">
        Cold
      </h2>
      <ul>
        {kitchen.colds.map((cold) => (
          <li key={cold.id} className="rule-b flex justify-between py-2">
            <span>{cold.name}</span>
            <span className="caption">
              {COLD_KINDS[cold.kind]}, {degrees(cold.air_c, units)}
            </span>
          </li>
        ))}
        {kitchen.colds.length === 0 && (
          <li className="text-soft">None yet: an ordinary one is taken.</li>
        )}
      </ul>
      <CoolRule />
      {canEdit && !adding && (
        <Button className="mt-3" onClick={() => setAdding(true)}>
          Add a refrigerator
        </Button>
      )}
      {adding && (
        <form
          className="mt-3 grid gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) add.mutate();
          }}
        >
          <Input
            label="Name"
            value={name}
            maxLength={60}
            placeholder="Reach-in, left"
            error={add.error instanceof ApiError ? add.error.message : null}
            onChange={(event) => setName(event.target.value)}
          />
          <div className="grid grid-cols-2 gap-4">
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
          </div>
          <div className="flex gap-3">
            <Button type="submit" kind="act" disabled={!name.trim() || add.isPending}>
              Keep it
            </Button>
            <Button onClick={() => setAdding(false)}>Leave it</Button>
          </div>
        </form>
      )}
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
            onValue={(v) => change.mutate({ end_min: Math.round(v * 60) })}
          />
        </div>
      )}
    </details>
  );
}
