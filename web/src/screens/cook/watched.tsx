import { SafetyGauge } from "@/figures/gauge";
import type { Watch } from "@/screens/cook/live";
import { clock, degrees, type Units } from "@/units";
import { say } from "@/say";

const IN_OVEN: Record<number, string> = {
  2: say("cook.water"),
  3: say("cook.oven_air"),
  4: say("cook.channel_4"),
};

/** What is watched besides the figure: the egg's safety, and the probe's other channels. */
export function Watched({
  live,
  units,
  baking,
}: {
  live: Watch | undefined;
  units: Units;
  /** In a bake the channels have their places. */
  baking: boolean;
}) {
  if (!live || (!live.safe && live.others.length === 0)) return null;
  return (
    <div className="rule-t flex flex-wrap items-center gap-x-8 gap-y-1 py-1">
      {live.safe && <SafetyGauge safe={live.safe} />}
      {live.others.map((o) => (
        <p key={o.channel} className="caption">
          {(baking && IN_OVEN[o.channel]) || say("cook.channel", { channel: o.channel })}:{" "}
          <b className="text-base text-ink">{degrees(o.temp_c, units, 1)}</b>
          {o.age_s > 12 && (
            <span className="text-burnt">{say("cook.silent_for", { age_s: clock(o.age_s) })}</span>
          )}
        </p>
      ))}
    </div>
  );
}
