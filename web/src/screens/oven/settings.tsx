import type { ApiError } from "@/api/client";
import type { Content } from "@/api/queries";
import { useBench } from "@/bench";
import { AFTER, bakingOf, DONENESS, type Baking, type Doneness } from "@/screens/oven/baking";
import { Check } from "@/ui/check";
import { NumberField, Select } from "@/ui/field";
import { fromCelsius, toCelsius } from "@/units";
import { say } from "@/say";
import { OVEN_KINDS } from "@/words";

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
  const { units, kitchen } = useBench();
  const b = bakingOf(content);
  const unit = units === "us" ? "°F" : "°C";
  const temp = (c: number) => Math.round(fromCelsius(c, units));
  const back = (v: number) => Math.round(toCelsius(v, units) * 10) / 10;
  const at = (...fields: string[]) =>
    problem?.field && fields.includes(problem.field) ? problem.message : null;
  const bath = content.bath_level !== "none";
  return (
    <div className="space-y-4">
      <Select
        label={say("oven.oven")}
        value={b.oven_id ?? kitchen.ovens[0]?.id ?? ""}
        disabled={off}
        error={at("baking.oven_id")}
        onChange={(event) => set({ oven_id: Number(event.target.value) || null })}
      >
        {kitchen.ovens.length === 0 && (
          <option value="">{say("oven.an_ordinary_static_oven")}</option>
        )}
        {kitchen.ovens.map((o) => (
          <option key={o.id} value={o.id}>
            {o.name}, {OVEN_KINDS[o.kind]}
          </option>
        ))}
      </Select>
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
        onChange={(event) => change({ bath_level: event.target.value as Content["bath_level"] })}
      >
        <option value="none">{say("oven.none")}</option>
        <option value="half">{say("oven.half_way_up_the_mould")}</option>
        <option value="rim">{say("oven.just_under_the_rim")}</option>
        <option value="mm">{say("oven.so_many_mm")}</option>
        <option value="beside">{say("oven.in_a_tray_beside_for_moist")}</option>
      </Select>
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
        onChange={(event) => set({ crust: event.target.value as Baking["crust"] })}
      >
        <option value="">{say("oven.no")}</option>
        <option value="pastry">{say("oven.pastry_under_and_around")}</option>
        <option value="crumb">{say("oven.crumb_base_under")}</option>
      </Select>
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
        value={b.doneness ?? ""}
        disabled={off}
        hint={b.doneness ? DONENESS[b.doneness].does : say("oven.the_sign_that_kitchens_go_by")}
        onChange={(event) => set({ doneness: (event.target.value || null) as Doneness | null })}
      >
        <option value="">{say("oven.as_usual_for_its_kind")}</option>
        {(Object.keys(DONENESS) as Doneness[]).map((key) => (
          <option key={key} value={key}>
            {DONENESS[key].name}
          </option>
        ))}
      </Select>
      <Select
        label={say("oven.then")}
        value={b.after}
        disabled={off}
        onChange={(event) => set({ after: event.target.value as Baking["after"] })}
      >
        {(Object.keys(AFTER) as Baking["after"][]).map((key) => (
          <option key={key} value={key}>
            {AFTER[key]}
          </option>
        ))}
      </Select>
    </div>
  );
}
