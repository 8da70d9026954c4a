import type { Shapes } from "@/api/client";
import { kelvins, type Units } from "@/units";

interface Lesson {
  kind: string;
  name: string;
  value: number | null;
  sd: number;
}

const percent = (share: number) => `${Math.round(100 * share)}`;

/** What a lesson says, in words: a ring’s power and loss, a pot’s steam, an oven’s dial, a family’s set. */
export function lessonWords({ kind, value, sd }: Lesson, units: Units): string {
  if (value === null) return "is not used";
  if (kind === "ring") return `gives ${percent(value)} ± ${percent(sd)} % of its power`;
  if (kind === "loss") {
    const side = value < 0 ? "less" : "more";
    return `lets a pot lose ${Math.abs(value).toFixed(0)} ± ${sd.toFixed(0)} W/m²K ${side} than an ordinary one`;
  }
  if (kind === "pot")
    return `lets ${value.toFixed(1)} ± ${sd.toFixed(1)} times of what the books say boil away`;
  const times = `${value.toFixed(1)} ± ${sd.toFixed(1)} times`;
  if (kind === "film") return `blows ${times} as hard as was known`;
  if (kind === "vent") return `lets its steam go ${times} as fast as was known`;
  if (kind === "recovers") return `comes back to its dial ${times} as fast as an ordinary one`;
  if (kind === "oven") {
    const side = value < 0 ? "cooler" : "hotter";
    return `is ${kelvins(Math.abs(value), units, 0)} ${side} than was known, ± ${kelvins(sd, units, 0)}`;
  }
  const side = value < 0 ? "softer" : "firmer";
  if (kind === "line")
    return `sets ${Math.abs(value).toFixed(1)} ± ${sd.toFixed(1)} ${side} than the books’`;
  return `comes out ${Math.abs(value).toFixed(1)} ± ${sd.toFixed(1)} ${side} than the books’`;
}

/** What a lesson is about: an ingredient is known by its key. */
export const lessonName = ({ kind, name }: { kind: string; name: string }) =>
  kind === "line" ? name.replaceAll("_", " ") : name;

const from = (n: number) => `from ${n} ${n === 1 ? "batch" : "batches"}`;

/** What it changes: the minutes as they are told now, and as the books would tell them. */
export function beforeAndAfter({ here_min, books_min }: Shapes["Used"]): string {
  if (here_min == null || books_min == null) return "";
  const [here, books] = [Math.round(here_min), Math.round(books_min)];
  return here === books ? "" : ` ${here} min here, about ${books} by the books.`;
}

/** A prediction says what of it was learned here. */
export function LearnedFrom({
  used,
  units,
}: {
  used: readonly Shapes["Used"][] | undefined;
  units: Units;
}) {
  return (used ?? []).map((lesson) => (
    <span
      key={`${lesson.kind}${lesson.name}`}
      className="caption block first-letter:uppercase"
      data-testid="learned-from"
    >
      {lessonName(lesson)} {lessonWords(lesson, units)}:{" "}
      {lesson.by_hand ? "by hand" : from(lesson.n)}.{beforeAndAfter(lesson)}
    </span>
  ));
}
