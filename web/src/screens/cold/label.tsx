import { useState } from "react";

import { Button } from "@/ui/button";
import { NumberField } from "@/ui/field";
import { say } from "@/say";
import { region } from "@/say/i18n";

const words = (date: Date) =>
  date.toLocaleDateString(region, { weekday: "long", day: "numeric", month: "long" });

/** A date-mark label for the container: made, keep until, by whom to be signed. Prints alone. */
export function Label({
  dessert,
  part,
  keepDays,
  kitchen,
}: {
  dessert: string;
  part: string | null;
  keepDays: number;
  kitchen: string;
}) {
  const [days, setDays] = useState(Math.max(1, Math.round(keepDays)));
  const made = new Date();
  const until = new Date(made);
  // The day of making is the first.
  until.setDate(made.getDate() + days - 1);
  return (
    <div className="mt-6">
      <article
        aria-label={say("cold.date_mark_label")}
        className="sheet max-w-sm border-[1.5px] border-ink bg-sheet p-4"
      >
        <p className="display text-2xl leading-tight">{dessert}</p>
        {part && <p className="text-lg">{part}</p>}
        <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3">
          <dt className="caption">{say("cold.made")}</dt>
          <dd>
            {words(made)}, {made.toLocaleTimeString(region, { hour: "2-digit", minute: "2-digit" })}
          </dd>
          <dt className="caption">{say("cold.keep_until")}</dt>
          <dd className="text-xl font-bold" data-testid="keep-until">
            {words(until)}
          </dd>
          <dt className="caption">{say("cold.by")}</dt>
          <dd className="border-b border-rule">{"\u00a0"}</dd>
        </dl>
        <p className="caption mt-2">{say("cold.5_c_41_f_or_colder", { kitchen })}</p>
      </article>
      <div className="no-print mt-3 flex items-end gap-4">
        <NumberField
          label={say("cold.keeps")}
          value={days}
          low={1}
          high={30}
          unit={say("cold.days")}
          onValue={setDays}
        />
        <Button onClick={() => window.print()}>{say("cold.print_the_label")}</Button>
      </div>
    </div>
  );
}
