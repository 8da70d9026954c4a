import type { Shapes } from "@/api/client";
import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { familyGroups } from "@/families";
import { span } from "@/figures/thread";
import type { Draft } from "@/keep/draft";
import { Choice } from "@/ui/choice";
import { Why } from "@/ui/why";
import { degrees, grams, holds, kelvins, millilitres, money, type Units } from "@/units";
import { DOES } from "@/words";
import { Contains } from "@/ui/contains";
import { Say, say } from "@/say";

type Found = Shapes["FormulaOut"];

interface Props {
  found: Found;
  earlier: Found | undefined;
  draft: Draft;
  readOnly: boolean;
}

/** What the numbers decide, in sentences under the map. */
export function Facts({ found, earlier, draft, readOnly }: Props) {
  const { units, kitchen } = useBench();
  const craft = useCraft();
  const set = found.set;
  const per = found.per_1000_liquid;
  return (
    <div className="mt-3">
      <p className="sr-only" aria-live="polite">
        {set && `${DOES[set.class]} ${band(set)}.`}{" "}
        {found.cook && found.cook.mode !== "none" && `${endpoint(found.cook, units)}.`}
      </p>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        {set && (
          <p className="display text-[2.1rem] leading-tight" data-testid="set-class">
            {DOES[set.class]}
            <span className="text-xl text-soft italic"> {band(set)}</span>
            <Why about={say("formula.how_it_sets_2")} reason={found.reasons["set"]} />
          </p>
        )}
        {found.whipped && (
          <p className="display text-[2.1rem] leading-tight" data-testid="set-class">
            {found.whipped.whips ? say("formula.whips_firm") : say("formula.does_not_whip")}
            <span className="text-xl text-soft italic">
              {say("formula.fat", {
                fat_pct: found.whipped.fat_pct.toFixed(0),
                whips:
                  found.whipped.whips &&
                  say("formula.stands_in_the_cold_in_a", {
                    volume_ml: millilitres(found.whipped.volume_ml, units),
                    stands_cold_h: span(60 * found.whipped.stands_cold_h),
                    stands_h: span(60 * found.whipped.stands_h),
                    degrees: degrees(20, units),
                  }),
              })}
            </span>
          </p>
        )}
        {found.cook && found.cook.mode !== "none" && (
          <p className="text-xl" data-testid="cook-endpoint">
            <b>{endpoint(found.cook, units)}</b>
            <Why about={say("formula.where_to_stop_cooking")} reason={found.reasons["cook"]} />
          </p>
        )}
      </div>
      {set && set.shift !== 0 && (
        <p className="caption" data-testid="learned-from">
          {say("formula.yours_come_out_than_the_books", {
            shift: Math.abs(set.shift).toFixed(1),
            shift2: set.shift < 0 ? say("formula.softer") : say("formula.firmer"),
            index: set.index.toFixed(1),
            index2: (set.index - set.shift).toFixed(1),
          })}
        </p>
      )}
      {set && (set.beaten === null || draft.content.beaten) && (
        <Beaten set={set} draft={draft} readOnly={readOnly} />
      )}
      {per && (
        <div className="rule-t mt-2 flex flex-wrap items-center gap-x-6">
          <dl className="flex flex-wrap gap-x-5" data-testid="ratios">
            {ratiosOf(found, earlier).map(([word, value, was]) => (
              <Ratio key={word} word={word} value={value} was={was} />
            ))}
          </dl>
          <p className="caption">
            {say("formula.per_1000_g_liquid")}
            <Why about={say("formula.the_ratios")} reason={found.reasons["ratios"]} />
          </p>
        </div>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-x-6">
        {found.eggs && (
          <p data-testid="eggs">
            <Say
              code="formula.crack_have_ready"
              values={{
                crack: whole(found.eggs.crack),
                crack2: found.eggs.crack > 1.04 ? say("formula.eggs_2") : say("formula.egg"),
                have: found.eggs.have,
              }}
              components={{ b: <b /> }}
            />
          </p>
        )}
        {found.whites_left_g > 1 && (
          <p data-testid="whites">
            <Say
              code="formula.leaves_whites"
              values={{
                whites_left_eggs: whole(found.whites_left_eggs),
                whites_left_g: grams(found.whites_left_g, units),
              }}
              components={{ b: <b /> }}
            />
            <Why about={say("formula.the_whites_left_over")} reason={found.reasons["whites"]} />
          </p>
        )}
        {found.coagulation && (
          <p>
            <Say
              code="formula.egg_thickens_from"
              values={{
                onset_c: degrees(found.coagulation.onset_c, units),
                curdle_c:
                  found.coagulation.curdle_c !== null
                    ? say("formula.curdles_at", {
                        curdle_c: degrees(found.coagulation.curdle_c, units),
                      })
                    : say("formula.starch_keeps_it_from_curdling"),
                spread_k: kelvins(found.coagulation.spread_k, units, 0),
              }}
              components={{ b: <b />, span: <span className="caption" /> }}
            />
            <Why
              about={say("formula.the_egg_temperatures")}
              reason={found.reasons["coagulation"]}
            />
          </p>
        )}
        {found.mass_g > 0 && (
          <p>
            {say("formula.g_ml", {
              mass_g: grams(found.mass_g, units),
              volume_ml: millilitres(found.volume_ml, units),
              air_ml:
                found.air_ml > 1 &&
                say("formula.with_of_air_in_it", { air_ml: millilitres(found.air_ml, units) }),
              density_g_per_ml: found.density_g_per_ml.toFixed(2),
            })}
          </p>
        )}
        {found.family && (
          <p>
            <Say
              code="formula.keeps_days_in_the_cold"
              values={{
                keep_days: found.family.keep_days[0],
                keep_days2: found.family.keep_days[1],
              }}
              components={{ b: <b /> }}
            />
            <Why about={say("formula.how_long_it_keeps")} reason={found.reasons["keeps"]} />
          </p>
        )}
        {found.nutrition && (
          <p data-testid="portion">
            {found.portions ? say("formula.a_portion") : "100 g"}:{" "}
            {found.portions ? `${grams(found.nutrition.grams, units)}, ` : ""}
            <b>{say("formula.kcal", { kcal: Math.round(found.nutrition.kcal) })}</b>
            {!found.complete && say("formula.so_far")}
            <Why about={say("formula.the_nutrition")} reason={nutrition(found)} />
            {found.cost && (
              <>
                {" "}
                <b>{money(found.cost.portion, kitchen.currency)}</b>
                {found.cost.without_price.length > 0 && say("formula.so_far")}
                <Why about={say("formula.the_cost")} reason={found.reasons["cost"]} />
              </>
            )}
          </p>
        )}
        <Contains of={found} />
      </div>
      {found.warnings.map((warning) => (
        <p key={warning} className="mt-1 border-l-[3px] border-burnt pl-3" data-testid="warning">
          {warning}
        </p>
      ))}
      {found.family && (
        <div className="mt-3 flex flex-wrap items-end gap-x-3">
          <div className="w-full max-w-80">
            <Choice
              label={say("formula.judged_as")}
              groups={familyGroups(
                craft.data?.families ?? [],
                found.family.guessed
                  ? say("formula.recognised", { family: found.family.name })
                  : say("formula.whatever_it_looks_like"),
              )}
              value={draft.content.family}
              disabled={readOnly}
              onValue={(family) => draft.change({ family })}
            />
          </div>
          <span className="caption pb-2">
            {found.family.distance < 90 && standing(found.family.distance)}
          </span>
        </div>
      )}
    </div>
  );
}

const BEATEN = [
  ["no", say("formula.left_as_it_sets"), say("formula.cut_spooned_unmoulded")],
  ["yes", say("formula.beaten_smooth_after"), say("formula.piped_filled_folded")],
] as const;

/** Whether a starch cream is worked after it set: it softens by a third, and only a cook knows. */
function Beaten({
  set,
  draft,
  readOnly,
}: {
  set: Shapes["SetOut"];
  draft: Draft;
  readOnly: boolean;
}) {
  const chosen = draft.content.beaten;
  const classes = { no: chosen ? null : set.class, yes: chosen ? null : set.beaten_class };
  return (
    <fieldset className="mt-1 flex flex-wrap items-center gap-2" data-testid="beaten">
      <legend className="sr-only">{say("formula.is_it_beaten_after_it_has")}</legend>
      {BEATEN.map(([value, word, use]) => (
        <label
          key={value}
          className="flex min-h-11 cursor-pointer items-center gap-2 border border-rule px-3 has-checked:border-ink has-checked:bg-ink/5 has-disabled:cursor-default"
        >
          <input
            type="radio"
            name="beaten"
            value={value}
            checked={chosen === value}
            disabled={readOnly}
            onChange={() => draft.change({ beaten: value })}
          />
          <span>
            {word}
            <span className="caption">
              {" "}
              {classes[value] ? DOES[classes[value]].toLowerCase() : use}
            </span>
          </span>
        </label>
      ))}
      {!chosen && <span className="caption">{say("formula.not_said_yet_both_are_shown")}</span>}
    </fieldset>
  );
}

/** The reason of the nutrition, with all of its numbers. */
function nutrition(found: Found): Shapes["Reason"] | undefined {
  const reason = found.reasons["nutrition"];
  const n = found.nutrition;
  if (!reason || !n) return undefined;
  const g = (value: number) => value.toFixed(1);
  return {
    ...reason,
    says: say("formula.kj_kcal_fat_g_carbohydrate_g", {
      says: reason.says,
      kj: Math.round(n.kj),
      kcal: Math.round(n.kcal),
      fat_g: g(n.fat_g),
      carbohydrate_g: g(n.carbohydrate_g),
      sugars_g: g(n.sugars_g),
      protein_g: g(n.protein_g),
      added_salt_g: g(n.added_salt_g),
    }),
  };
}

type Row = [word: string, value: number, was: number | undefined, shownFrom?: number];

/** The ratios worth a figure, each with what it was in the version before. */
function ratiosOf(found: Found, earlier: Found | undefined): Row[] {
  const { per_1000_liquid: per, composition_pct: holds, taste_pct: tastes } = found;
  if (!per) return [];
  const was = earlier?.per_1000_liquid;
  const held = earlier?.composition_pct;
  const tasted = earlier?.taste_pct;
  const corn = per.corn_starch_equivalent_g;
  const starch =
    per.starch_g - corn > 2
      ? say("formula.starch_as_corn", { corn_starch_equivalent_g: corn.toFixed(0) })
      : say("formula.starch");
  const rows: Row[] = [
    [say("formula.yolk"), per.yolk_g, was?.yolk_g],
    [say("formula.whole_egg"), per.whole_egg_g, was?.whole_egg_g, 0.5],
    [starch, per.starch_g, was?.starch_g],
    [say("formula.sugar"), per.sugar_g, was?.sugar_g],
    [say("formula.fat_2"), holds.fat, held?.fat],
    [say("formula.water"), holds.water, held?.water],
    [say("formula.dry_matter"), tastes.dry_matter, tasted?.dry_matter],
    [say("formula.sweetness"), tastes.sweetness, tasted?.sweetness],
    [say("formula.cocoa"), tastes.cocoa, tasted?.cocoa, 0.05],
    [say("formula.alcohol"), holds.alcohol, held?.alcohol, 0.05],
  ];
  return rows.filter(([, value, , from = 0]) => value >= from);
}

function Ratio({ word, value, was }: { word: string; value: number; was: number | undefined }) {
  const change = was === undefined ? 0 : value - was;
  return (
    <div className="pt-1">
      <dd className="text-2xl leading-tight font-semibold">
        {value.toFixed(value < 10 && value > 0 ? 1 : 0)}
        {Math.abs(change) >= 0.5 && (
          <span
            className="ml-1 text-sm font-normal text-burnt"
            title={say("formula.against_the_version_before")}
          >
            {change > 0 ? "+" : "−"}
            {Math.abs(change).toFixed(Math.abs(change) < 10 ? 1 : 0)}
          </span>
        )}
      </dd>
      <dt className="caption leading-tight">{word}</dt>
    </div>
  );
}

const whole = (eggs: number) => eggs.toFixed(Math.abs(eggs - Math.round(eggs)) < 0.05 ? 0 : 1);

function band(set: Shapes["SetOut"]): string {
  const low = DOES[set.low_class].toLowerCase();
  const high = DOES[set.high_class].toLowerCase();
  if (set.low_class === set.high_class) return "";
  if (set.low_class === set.class) return say("formula.or", { high });
  if (set.high_class === set.class) return say("formula.or_just", { low });
  return say("formula.between_and", { low, high });
}

export function endpoint(cook: Shapes["Endpoint"], units: Units): string {
  switch (cook.mode) {
    case "boil_hold":
      return say("formula.boil_and_hold", { hold_s: holds(cook.hold_s) });
    case "nappe":
      return say("formula.stop_at_never_past", {
        cook: range(cook, units),
        never_c: degrees(cook.never_c, units),
      });
    case "double_boiler":
      return say("formula.double_boiler_to", { cook: range(cook, units) });
    case "bake":
      return say("formula.bake_until_the_centre_is", { cook: range(cook, units) });
    case "none":
      return say("formula.nothing_to_cook");
  }
}

function range(cook: Shapes["Endpoint"], units: Units): string {
  const [low, high] = [degrees(cook.low_c, units), degrees(cook.high_c, units)];
  return low === high ? low : `${low.split("\u202f")[0] ?? low}–${high}`;
}

function standing(distance: number): string {
  if (distance < 0.5) return say("formula.well_inside_its_usual_windows");
  if (distance < 1.1) return say("formula.inside_its_usual_windows");
  if (distance < 2.2) return say("formula.at_the_edge_of_its_usual");
  return say("formula.outside_its_usual_windows");
}
