import type { ApiError } from "@/api/client";
import type { Content } from "@/api/queries";
import { useBench } from "@/bench";
import { AFTER, bakingOf, DONENESS, type Baking, type Doneness } from "@/screens/oven/baking";
import { Check } from "@/ui/check";
import { NumberField, Select } from "@/ui/field";
import { degrees, fromCelsius, toCelsius } from "@/units";
import { say } from "@/say";
import { OvenSelect } from "@/screens/oven/oven-select";

interface Props {
  content: Content;
  change: (part: Partial<Content>) => void;
  set: (part: Partial<Baking>) => void;
  /** May not change the formula’s own: fill, bath and pan. */
  fixed: boolean;
  off: boolean;
  problem: ApiError | null;
}

/** Oven, dial, water, what is poured and what is looked for. */
export function OvenSettings({ content, change, set, fixed, off, problem }: Props) {
  const { units } = useBench();
  const b = bakingOf(content);
  const unit = units === "us" ? "°F" : "°C";
  const temp = (c: number) => Math.round(fromCelsius(c, units));
  const back = (v: number) => Math.round(toCelsius(v, units) * 10) / 10;
  const at = (...fields: string[]) =>
    problem?.field && fields.includes(problem.field) ? problem.message : null;
  const bath = content.bath_level !== "none";
  return (
    <div className="space-y-4">
      <OvenSelect
        value={b.oven_id}
        disabled={off}
        error={at("baking.oven_id")}
        onOven={(oven_id) => set({ oven_id })}
      />
      <div>
        <NumberField
          key={`set${units}`}
          label={say("oven.dial")}
          value={temp(b.set_c)}
          low={temp(60)}
          high={temp(320)}
          step={5}
          unit={unit}
          disabled={off}
          error={at("baking.set_c", "baking.first_c")}
          onValue={(v) => set({ set_c: back(v) })}
        />
        <input
          type="range"
          className="mt-1 h-8 w-full accent-[var(--burnt)]"
          aria-label={say("oven.oven_dial")}
          aria-valuetext={degrees(b.set_c, units)}
          min={90}
          max={230}
          step={5}
          value={Math.min(230, Math.max(90, b.set_c))}
          disabled={off}
          onChange={(event) => set({ set_c: Number(event.target.value) })}
        />
      </div>
      <Check on={!b.preheated} disabled={off} set={(on) => set({ preheated: !on })}>
        {say("oven.into_the_cold_oven")}
      </Check>
      <Check
        on={b.stand === "deck"}
        disabled={off}
        set={(on) => set({ stand: on ? "deck" : "rack" })}
      >
        {say("oven.on_the_floor_of_the_oven")}
      </Check>
      <Check on={b.first_c !== null} disabled={off} set={(on) => set({ first_c: on ? 220 : null })}>
        {say("oven.hot_at_first_then_down")}
      </Check>
      {typeof b.first_c === "number" && (
        <div className="grid grid-cols-2 gap-4">
          <NumberField
            key={`first${units}`}
            label={say("oven.at_first")}
            value={temp(b.first_c)}
            low={temp(60)}
            high={temp(320)}
            step={5}
            unit={unit}
            disabled={off}
            onValue={(v) => set({ first_c: back(v) })}
          />
          <NumberField
            label={say("oven.for")}
            value={b.first_min}
            low={1}
            high={240}
            unit={say("oven.min")}
            disabled={off}
            onValue={(v) => set({ first_min: v })}
          />
        </div>
      )}
      <Select
        label={say("oven.water_bath")}
        value={content.bath_level}
        disabled={fixed}
        error={at("bath_level", "tray")}
        options={{
          none: say("oven.none"),
          half: say("oven.half_way_up_the_mould"),
          rim: say("oven.just_under_the_rim"),
          mm: say("oven.so_many_mm"),
          beside: say("oven.in_a_tray_beside_for_moist"),
        }}
        onValue={(bath_level) => change({ bath_level })}
      />
      {content.bath_level === "mm" && (
        <NumberField
          label={say("oven.water_stands")}
          value={content.bath_mm}
          low={1}
          high={400}
          unit={say("oven.mm")}
          disabled={fixed}
          onValue={(v) => change({ bath_mm: Math.round(v) })}
        />
      )}
      {bath && (
        <>
          <NumberField
            key={`water${units}`}
            label={say("oven.water_poured_at")}
            value={temp(b.water_c)}
            low={temp(0)}
            high={temp(100)}
            step={5}
            unit={unit}
            disabled={off}
            onValue={(v) => set({ water_c: back(v) })}
          />
          <Check on={b.covered} disabled={off} set={(covered) => set({ covered })}>
            {say("oven.foil_over_the_whole_pan")}
          </Check>
        </>
      )}
      <Check
        on={b.poured_c !== null}
        disabled={off}
        set={(on) => set({ poured_c: on ? 20 : null })}
      >
        {say("oven.the_mix_was_measured")}
      </Check>
      {typeof b.poured_c === "number" && (
        <NumberField
          key={`poured${units}`}
          label={say("oven.poured_at")}
          value={temp(b.poured_c)}
          low={temp(0)}
          high={temp(75)}
          unit={unit}
          disabled={off}
          error={at("baking.poured_c")}
          onValue={(v) => set({ poured_c: back(v) })}
        />
      )}
      <Select
        label={say("oven.in_a_crust")}
        value={b.crust}
        disabled={off}
        error={at("baking.crust_mm")}
        options={{
          "": say("oven.no"),
          pastry: say("oven.pastry_under_and_around"),
          crumb: say("oven.crumb_base_under"),
        }}
        onValue={(crust) => set({ crust })}
      />
      {b.crust && (
        <NumberField
          label={say("oven.crust")}
          value={b.crust_mm}
          low={1}
          high={20}
          unit={say("oven.mm")}
          disabled={off}
          onValue={(v) => set({ crust_mm: v })}
        />
      )}
      <Select
        label={say("oven.done_when")}
        value={b.doneness ?? null}
        disabled={off}
        hint={b.doneness ? DONENESS[b.doneness].does : say("oven.the_sign_that_kitchens_go_by")}
        options={[
          [null, say("oven.as_usual_for_its_kind")],
          ...(Object.keys(DONENESS) as Doneness[]).map((key) => [key, DONENESS[key].name] as const),
        ]}
        onValue={(doneness) => set({ doneness })}
      />
      <Select
        label={say("oven.then")}
        value={b.after}
        disabled={off}
        options={AFTER}
        onValue={(after) => set({ after })}
      />
    </div>
  );
}
