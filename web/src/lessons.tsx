import type { Shapes } from "@/api/client";
import { kelvins, type Units } from "@/units";
import { say } from "@/say";

interface Lesson {
  kind: string;
  name: string;
  value: number | null;
  sd: number;
}

const percent = (share: number) => `${Math.round(100 * share)}`;

/** What a lesson says, in words: a ring’s power and loss, a pot’s steam, an oven’s dial, a family’s set. */
export function lessonWords({ kind, value, sd }: Lesson, units: Units): string {
  if (value === null) return say("lessons.is_not_used");
  if (kind === "ring")
    return say("lessons.gives_of_its_power", { value: percent(value), sd: percent(sd) });
  if (kind === "loss") {
    const side = value < 0 ? say("lessons.less") : say("lessons.more");
    return say("lessons.lets_a_pot_lose_w_m2k", {
      value: Math.abs(value).toFixed(0),
      sd: sd.toFixed(0),
      side,
    });
  }
  if (kind === "pot")
    return say("lessons.lets_times_of_what_the_books", {
      value: value.toFixed(1),
      sd: sd.toFixed(1),
    });
  const times = say("lessons.times", { value: value.toFixed(1), sd: sd.toFixed(1) });
  if (kind === "film") return say("lessons.blows_as_hard_as_was_known", { times });
  if (kind === "vent") return say("lessons.lets_its_steam_go_as_fast", { times });
  if (kind === "recovers") return say("lessons.comes_back_to_its_dial_as", { times });
  if (kind === "oven") {
    const side = value < 0 ? say("lessons.cooler") : say("lessons.hotter");
    return say("lessons.is_than_was_known", {
      value: kelvins(Math.abs(value), units, 0),
      side,
      sd: kelvins(sd, units, 0),
    });
  }
  const side = value < 0 ? say("lessons.softer") : say("lessons.firmer");
  if (kind === "line")
    return say("lessons.sets_than_the_books", {
      value: Math.abs(value).toFixed(1),
      sd: sd.toFixed(1),
      side,
    });
  return say("lessons.comes_out_than_the_books", {
    value: Math.abs(value).toFixed(1),
    sd: sd.toFixed(1),
    side,
  });
}

const from = (n: number) => say("lessons.from_batches", { n });

/** What it changes: the minutes as they are told now, and as the books would tell them. */
function beforeAndAfter({ here_min, books_min }: Shapes["Used"]): string {
  if (here_min == null || books_min == null) return "";
  const [here, books] = [Math.round(here_min), Math.round(books_min)];
  return here === books ? "" : say("lessons.min_here_about_by_the_books", { here, books });
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
      {lesson.called || lesson.name} {lessonWords(lesson, units)}:{" "}
      {lesson.by_hand ? say("lessons.by_hand") : from(lesson.n)}.{beforeAndAfter(lesson)}
    </span>
  ));
}
