import { RadioGroup } from "radix-ui";

import type { ApiError, Shapes } from "@/api/client";
import { type Content } from "@/api/queries";
import { useBench } from "@/bench";
import { useEggGrades } from "@/screens/egg-grades";
import type { Today } from "@/screens/stove/today";
import { NumberField, Select } from "@/ui/field";
import { FL_OZ_ML, fromCelsius, toCelsius } from "@/units";
import { SCHOOLS } from "@/words";
import { say } from "@/say";

type School = keyof typeof SCHOOLS;
const FOAMS = ["italian", "swiss", "french"];

interface Props {
  content: Content;
  /** Change the school: a change of the formula. */
  setSchool: (school: School) => void;
  /** Change what is so today: the formula's own until it has been cooked. */
  set: (part: Today) => void;
  schoolFixed: boolean;
  fixed: boolean;
  problem: ApiError | null;
  /** Which guide it is: a stirred custard has schools, a syrup a temperature. */
  guide: string;
  /** What it is cooked to, if there is anything to choose. */
  aim: Shapes["Aim"] | null | undefined;
  /** Whether there is egg to temper. */
  tempers: boolean;
  /** Whether a curve is computed: what is made at the bench asks for no ring. */
  heated: boolean;
  change: ((part: Partial<Content>) => void) | undefined;
}

/** Whether a guide leaves anything to say: what is made at the bench has no method. */
export const asksMethod = (guide: string, heated: boolean) =>
  heated || guide === "custard" || FOAMS.includes(guide);

/** School, temperatures, ladle and ring: what the ladder and the curve are computed from. */
export function Method(props: Props) {
  const {
    content,
    setSchool,
    set,
    schoolFixed,
    fixed,
    problem,
    guide,
    aim,
    tempers,
    heated,
    change,
  } = props;
  const { units, kitchen } = useBench();
  const grades = useEggGrades();
  const at = (field: string) => (problem?.field === field ? problem.message : null);
  const unit = units === "us" ? "°F" : "°C";
  const temp = (c: number) => Math.round(fromCelsius(c, units));
  const us = units === "us";
  const tenth = (value: number) => Math.round(value * 10) / 10;
  const ring = (
    <Select
      label={say("stove.ring")}
      value={content.ring_id ?? null}
      disabled={fixed}
      error={at("ring_id")}
      options={
        kitchen.rings.length === 0
          ? [[null, say("stove.no_ring_in_this_kitchen_yet")]]
          : kitchen.rings.map((r) => [
              r.id,
              say("stove.kw", { r: r.name, rated_w: (r.rated_w / 1000).toFixed(1) }),
            ])
      }
      onValue={(ring_id) => set({ ring_id })}
    />
  );
  const cream = (
    <NumberField
      label={guide === "custard" ? say("stove.heat_cream") : say("stove.heat")}
      value={content.cook_setting_pct}
      low={1}
      high={100}
      step={5}
      unit="%"
      disabled={fixed}
      onValue={(v) => set({ cook_setting_pct: Math.round(v) })}
    />
  );
  if (guide !== "custard") {
    return (
      <div className="space-y-4">
        {FOAMS.includes(guide) && (
          <Select
            label={say("stove.school_of_meringue")}
            value={content.method || guide}
            disabled={!change}
            options={[
              ["italian", say("stove.italian_hot_syrup_stands_longest")],
              ["swiss", say("stove.swiss_warmed_over_water_firm")],
              ["french", say("stove.french_raw_to_fold_or_bake")],
            ]}
            onValue={(method) => change?.({ method: method as Content["method"] })}
          />
        )}
        {aim && (
          <NumberField
            key={`target${units}${guide}`}
            label={guide === "caramel" ? say("stove.colour_at") : say("stove.to")}
            value={temp(content.target_c || aim.usual_c)}
            low={temp(aim.low_c)}
            high={temp(aim.high_c)}
            unit={unit}
            disabled={!change}
            error={at("syrup_c") ?? at("target_c")}
            onValue={(v) => change?.({ target_c: Math.round(toCelsius(v, units) * 10) / 10 })}
          />
        )}
        {heated && ring}
        {heated && cream}
      </div>
    );
  }
  return (
    <div className="space-y-4">
      {tempers && (
        <RadioGroup.Root
          value={content.school}
          disabled={schoolFixed}
          onValueChange={(next) => setSchool(next as School)}
          aria-label={say("stove.school_of_tempering")}
        >
          {(Object.keys(SCHOOLS) as School[]).map((school) => (
            <RadioGroup.Item
              key={school}
              value={school}
              className="group rule-b flex min-h-12 w-full items-start gap-3 py-2 text-left"
            >
              <span
                aria-hidden="true"
                className="mt-1 size-4 shrink-0 rounded-full border-[1.5px] border-ink group-data-[state=checked]:border-[5px] group-data-[state=checked]:border-burnt"
              />
              <span>
                <span className="group-data-[state=checked]:font-semibold">
                  {SCHOOLS[school].name}
                </span>
                <span className="caption hidden group-data-[state=checked]:block">
                  {SCHOOLS[school].does}
                </span>
              </span>
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
      )}
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        {content.school === "eggs_after_boil" ? null : (
          <NumberField
            key={`hot${units}`}
            label={say("stove.liquid_at")}
            value={temp(content.hot_c)}
            low={temp(20)}
            high={temp(105)}
            unit={unit}
            disabled={fixed}
            error={at("hot.temp_c")}
            onValue={(v) => set({ hot_c: Math.round(toCelsius(v, units) * 10) / 10 })}
          />
        )}
        {tempers && (
          <>
            <NumberField
              key={`eggs${units}`}
              label={say("stove.eggs_at")}
              value={temp(content.eggs_c)}
              low={temp(-2)}
              high={temp(60)}
              unit={unit}
              disabled={fixed}
              error={at("eggs_c")}
              onValue={(v) => set({ eggs_c: Math.round(toCelsius(v, units) * 10) / 10 })}
            />
            <Select
              label={say("stove.eggs_today")}
              value={content.egg_grade}
              disabled={fixed}
              error={at("egg_grade")}
              options={grades}
              onValue={(egg_grade) => set({ egg_grade })}
            />
            <NumberField
              label={say("stove.one_ladle")}
              value={us ? tenth(content.ladle_ml / FL_OZ_ML) : content.ladle_ml}
              low={us ? 0.5 : 5}
              high={us ? 64 : 2000}
              step={us ? 0.5 : 10}
              unit={us ? say("stove.fl_oz") : say("stove.ml")}
              disabled={fixed}
              onValue={(v) => set({ ladle_ml: Math.round(us ? v * FL_OZ_ML : v) })}
            />
            {content.school === "held_back_liquid" && (
              <NumberField
                label={say("stove.held_back")}
                value={us ? tenth(content.held_back_ml / FL_OZ_ML) : content.held_back_ml}
                low={0}
                high={us ? 670 : 20000}
                step={us ? 1 : 25}
                unit={us ? say("stove.fl_oz") : say("stove.ml")}
                disabled={fixed}
                onValue={(v) => set({ held_back_ml: Math.round(us ? v * FL_OZ_ML : v) })}
              />
            )}
          </>
        )}
      </div>
      {ring}
      <div className="grid grid-cols-2 gap-x-4">
        <NumberField
          label={say("stove.heat_liquid")}
          value={content.heat_setting_pct}
          low={1}
          high={100}
          step={5}
          unit="%"
          disabled={fixed}
          onValue={(v) => set({ heat_setting_pct: Math.round(v) })}
        />
        {cream}
      </div>
    </div>
  );
}
