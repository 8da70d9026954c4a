import type { Shapes } from "@/api/client";
import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { familyGroups } from "@/families";
import { span } from "@/figures/thread";
import type { Draft } from "@/keep/draft";
import { Choice } from "@/ui/choice";
import { Why } from "@/ui/why";
import { degrees, grams, holds, kelvins, millilitres, money, said, type Units } from "@/units";
import { DOES } from "@/words";
import { Contains } from "@/ui/contains";

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
            <Why about="how it sets" reason={found.reasons["set"]} />
          </p>
        )}
        {found.whipped && (
          <p className="display text-[2.1rem] leading-tight" data-testid="set-class">
            {found.whipped.whips ? "Whips firm" : "Does not whip"}
            <span className="text-xl text-soft italic">
              {" "}
              {found.whipped.fat_pct.toFixed(0)} % fat
              {found.whipped.whips &&
                `, ${millilitres(found.whipped.volume_ml, units)}; stands ${span(60 * found.whipped.stands_cold_h)} in the cold, ${span(60 * found.whipped.stands_h)} in a room of ${degrees(20, units)}`}
            </span>
          </p>
        )}
        {found.cook && found.cook.mode !== "none" && (
          <p className="text-xl" data-testid="cook-endpoint">
            <b>{endpoint(found.cook, units)}</b>
            <Why about="where to stop cooking" reason={found.reasons["cook"]} />
          </p>
        )}
      </div>
      {set && set.shift !== 0 && (
        <p className="caption" data-testid="learned-from">
          Yours come out {Math.abs(set.shift).toFixed(1)} {set.shift < 0 ? "softer" : "firmer"} than
          the books’: {set.index.toFixed(1)} here, {(set.index - set.shift).toFixed(1)} by the
          books.
        </p>
      )}
      {set && (set.beaten === null || draft.content.beaten) && (
        <Beaten set={set} draft={draft} readOnly={readOnly} />
      )}
      {per && (
        <div className="rule-t mt-2 flex flex-wrap items-center gap-x-6">
          <dl className="flex flex-wrap gap-x-5" data-testid="ratios">
            <Ratio word="yolk" value={per.yolk_g} was={earlier?.per_1000_liquid?.yolk_g} />
            {per.whole_egg_g > 0.5 && (
              <Ratio
                word="whole egg"
                value={per.whole_egg_g}
                was={earlier?.per_1000_liquid?.whole_egg_g}
              />
            )}
            <Ratio
              word={
                per.starch_g - per.corn_starch_equivalent_g > 2
                  ? `starch (as corn ${per.corn_starch_equivalent_g.toFixed(0)})`
                  : "starch"
              }
              value={per.starch_g}
              was={earlier?.per_1000_liquid?.starch_g}
            />
            <Ratio word="sugar" value={per.sugar_g} was={earlier?.per_1000_liquid?.sugar_g} />
            <Ratio
              word="fat %"
              value={found.composition_pct.fat}
              was={earlier?.composition_pct.fat}
            />
            <Ratio
              word="water %"
              value={found.composition_pct.water}
              was={earlier?.composition_pct.water}
            />
            <Ratio
              word="dry matter %"
              value={found.taste_pct.dry_matter}
              was={earlier?.taste_pct.dry_matter}
            />
            <Ratio
              word="sweetness %"
              value={found.taste_pct.sweetness}
              was={earlier?.taste_pct.sweetness}
            />
            {found.taste_pct.cocoa > 0.05 && (
              <Ratio word="cocoa %" value={found.taste_pct.cocoa} was={earlier?.taste_pct.cocoa} />
            )}
            {found.composition_pct.alcohol > 0.05 && (
              <Ratio
                word="alcohol %"
                value={found.composition_pct.alcohol}
                was={earlier?.composition_pct.alcohol}
              />
            )}
          </dl>
          <p className="caption">
            per 1000 g liquid
            <Why about="the ratios" reason={found.reasons["ratios"]} />
          </p>
        </div>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-x-6">
        {found.eggs && (
          <p data-testid="eggs">
            crack{" "}
            <b>
              {whole(found.eggs.crack)} {found.eggs.crack > 1.04 ? "eggs" : "egg"}
            </b>
            , have {found.eggs.have} ready
          </p>
        )}
        {found.whites_left_g > 1 && (
          <p data-testid="whites">
            leaves <b>{whole(found.whites_left_eggs)} whites</b>,{" "}
            {grams(found.whites_left_g, units)}
            <Why about="the whites left over" reason={found.reasons["whites"]} />
          </p>
        )}
        {found.coagulation && (
          <p>
            egg thickens from <b>{degrees(found.coagulation.onset_c, units)}</b>
            {found.coagulation.curdle_c !== null
              ? `, curdles at ${degrees(found.coagulation.curdle_c, units)}`
              : ", starch keeps it from curdling"}{" "}
            <span className="caption">±{kelvins(found.coagulation.spread_k, units, 0)}</span>
            <Why about="the egg temperatures" reason={found.reasons["coagulation"]} />
          </p>
        )}
        {found.mass_g > 0 && (
          <p>
            {grams(found.mass_g, units)}, {millilitres(found.volume_ml, units)}
            {found.air_ml > 1 && ` with ${millilitres(found.air_ml, units)} of air in it`},{" "}
            {found.density_g_per_ml.toFixed(2)} g/ml
          </p>
        )}
        {found.family && (
          <p>
            keeps{" "}
            <b>
              {found.family.keep_days[0]}–{found.family.keep_days[1]} days
            </b>{" "}
            in the cold
            <Why about="how long it keeps" reason={found.reasons["keeps"]} />
          </p>
        )}
        {found.nutrition && (
          <p data-testid="portion">
            {found.portions ? "a portion" : "100 g"}:{" "}
            {found.portions ? `${grams(found.nutrition.grams, units)}, ` : ""}
            <b>{Math.round(found.nutrition.kcal)} kcal</b>
            {!found.complete && " so far"}
            <Why about="the nutrition" reason={nutrition(found)} />
            {found.cost && (
              <>
                {" "}
                <b>{money(found.cost.portion, kitchen.currency)}</b>
                {found.cost.without_price.length > 0 && " so far"}
                <Why about="the cost" reason={found.reasons["cost"]} />
              </>
            )}
          </p>
        )}
        <Contains allergens={found.allergens} complete={found.complete} />
      </div>
      {found.warnings.map((warning) => (
        <p key={warning} className="mt-1 border-l-[3px] border-burnt pl-3" data-testid="warning">
          {said(warning, units)}
        </p>
      ))}
      {found.family && (
        <div className="mt-3 flex flex-wrap items-end gap-x-3">
          <div className="w-full max-w-80">
            <Choice
              label="judged as"
              groups={familyGroups(
                craft.data?.families ?? [],
                found.family.guessed
                  ? `${found.family.name} (recognised)`
                  : "whatever it looks like",
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
  ["no", "left as it sets", "cut, spooned, unmoulded"],
  ["yes", "beaten smooth after", "piped, filled, folded"],
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
      <legend className="sr-only">Is it beaten after it has set?</legend>
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
      {!chosen && <span className="caption">Not said yet: both are shown.</span>}
    </fieldset>
  );
}

/** The reason of the nutrition, with all of its numbers. */
function nutrition(found: Found): Shapes["ReasonOut"] | undefined {
  const reason = found.reasons["nutrition"];
  const n = found.nutrition;
  if (!reason || !n) return undefined;
  const g = (value: number) => value.toFixed(1);
  return {
    ...reason,
    says:
      `${reason.says} ${Math.round(n.kj)} kJ, ${Math.round(n.kcal)} kcal; fat ${g(n.fat_g)} g, ` +
      `carbohydrate ${g(n.carbohydrate_g)} g, of it sugars ${g(n.sugars_g)} g, ` +
      `protein ${g(n.protein_g)} g, added salt ${g(n.added_salt_g)} g.`,
  };
}

function Ratio({ word, value, was }: { word: string; value: number; was: number | undefined }) {
  const change = was === undefined ? 0 : value - was;
  return (
    <div className="pt-1">
      <dd className="text-2xl leading-tight font-semibold">
        {value.toFixed(value < 10 && value > 0 ? 1 : 0)}
        {Math.abs(change) >= 0.5 && (
          <span className="ml-1 text-sm font-normal text-burnt" title="against the version before">
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
  if (set.low_class === set.class) return `or ${high}`;
  if (set.high_class === set.class) return `or just ${low}`;
  return `between ${low} and ${high}`;
}

export function endpoint(cook: Shapes["CookOut"], units: Units): string {
  switch (cook.mode) {
    case "boil_hold":
      return `Boil and hold ${holds(cook.hold_s)}`;
    case "nappe":
      return `Stop at ${range(cook, units)}, never past ${degrees(cook.never_c, units)}`;
    case "double_boiler":
      return `Double boiler to ${range(cook, units)}`;
    case "bake":
      return `Bake until the centre is ${range(cook, units)}`;
    case "none":
      return "Nothing to cook";
  }
}

function range(cook: Shapes["CookOut"], units: Units): string {
  const [low, high] = [degrees(cook.low_c, units), degrees(cook.high_c, units)];
  return low === high ? low : `${low.split("\u202f")[0] ?? low}–${high}`;
}

function standing(distance: number): string {
  if (distance < 0.5) return "well inside its usual windows";
  if (distance < 1.1) return "inside its usual windows";
  if (distance < 2.2) return "at the edge of its usual windows";
  return "outside its usual windows";
}
