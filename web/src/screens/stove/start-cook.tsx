import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";

import { client, must, type Shapes } from "@/api/client";
import { useGoing, useDevices } from "@/api/queries";
import { useBench } from "@/bench";
import { newId } from "@/keep/id";
import type { Today } from "@/screens/stove/today";
import { Button } from "@/ui/button";
import { Select } from "@/ui/field";
import { Refused } from "@/ui/states";
import { localIso, weekdayTime } from "@/units";
import { Say, say } from "@/say";

const DO = {
  stove: say("stove.cook_it"),
  oven: say("stove.bake_it"),
  build: say("stove.build_it"),
} as const;
const SAVING = say("stove.saving_the_formula_first");
const UNSAVED = { stove: SAVING, oven: SAVING, build: say("stove.above_save_it_first") } as const;

const deviceWord = ({ name, simulated, busy }: Shapes["DeviceOut"]) =>
  [name, simulated && say("stove.simulated"), busy && say("stove.in_another_pot")]
    .filter(Boolean)
    .join("");

/** Choose a probe and begin: at the stove, in the oven, or putting a dessert together. */
export function StartCook({
  version,
  today,
  unsaved,
  ladder = false,
  place,
}: {
  version: Shapes["VersionOut"];
  today: Today;
  unsaved: boolean;
  ladder?: boolean;
  place: "stove" | "oven" | "build";
}) {
  const { kid } = useBench();
  const go = useNavigate();
  const store = useQueryClient();
  const devices = useDevices(kid);
  const going = useGoing(kid);
  const [chosen, setChosen] = useState<string | null>(null);
  const [scale, setScale] = useState("");
  const [speed, setSpeed] = useState(1);
  const [id] = useState(() => newId());
  const probes = devices.data?.filter((d) => d.kind === "probe") ?? [];
  const scales = devices.data?.filter((d) => d.kind === "scale") ?? [];
  const free = probes.filter((d) => !d.busy);
  const probe = chosen === null ? free[0] : free.find((d) => d.id === chosen);
  const running = going.data ?? [];
  const [params] = useSearchParams();
  const [day, step] = [params.get("day"), params.get("step")];
  const start = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/batches", {
          params: { path: { kid } },
          body: {
            id,
            version_id: version.id,
            device_id: probe?.id ?? null,
            scale_id: scale || null,
            time_scale: probe?.simulated ? speed : 1,
            today,
            place,
            for_day: day && step ? { id: day, step, at: localIso(new Date()) } : null,
          },
        }),
      ),
    onSuccess: (batch) => {
      store.setQueryData(["batch", kid, batch.id], batch);
      void store.invalidateQueries({ queryKey: ["dessert", kid] });
      void store.invalidateQueries({ queryKey: ["book", kid] });
      void store.invalidateQueries({ queryKey: ["going", kid] });
      void store.invalidateQueries({ queryKey: ["devices", kid] });
      if (day) void store.invalidateQueries({ queryKey: ["day", kid, day] });
      void go(`/k/${kid}/cook/${batch.id}`);
    },
  });
  return (
    <div className="rule-t mt-4 pt-3">
      {day && step && (
        <p className="mb-2 border-l-[3px] border-burnt pl-3" data-testid="of-day">
          <Say
            code="stove.a_step_of_the_day_it"
            components={{
              link: <Link className="underline underline-offset-4" to={`/k/${kid}/day/${day}`} />,
            }}
          />
        </p>
      )}
      {running.map((b) => (
        <p key={b.id} className="mb-2">
          <Link className="underline underline-offset-4" to={`/k/${kid}/cook/${b.id}`}>
            {say("stove.back_to_the_cook_of_still", {
              dessert: b.dessert,
              since: weekdayTime(b.started_at),
            })}
          </Link>
        </p>
      ))}
      <div className="grid grid-cols-[1fr_auto] items-end gap-4">
        <Select
          label={say("stove.probe")}
          value={probe?.id ?? ""}
          options={[
            ...probes.map((d) => [d.id, deviceWord(d), d.busy] as const),
            ["", say("stove.none_typed_readings_or_the_clock")],
          ]}
          onValue={setChosen}
        />
        {probe?.simulated && (
          <Select
            label={say("stove.its_clock")}
            value={speed}
            options={[1, 5, 10, 20, 60].map((n) => [
              n,
              n === 1 ? say("stove.real_time") : say("stove.faster", { n }),
            ])}
            onValue={setSpeed}
          />
        )}
      </div>
      {scales.length > 0 && ladder && (
        <Select
          label={
            place === "build"
              ? say("stove.scale_under_the_mould")
              : say("stove.scale_under_the_bowl")
          }
          value={scale}
          options={[
            [
              "",
              place === "build"
                ? say("stove.none_by_the_scale_on_the")
                : say("stove.none_ladles_are_counted"),
            ],
            ...scales.map((d) => [d.id, deviceWord(d), d.busy] as const),
          ]}
          onValue={setScale}
        />
      )}
      <Button
        kind="act"
        className="mt-4 w-full text-xl"
        disabled={start.isPending || unsaved}
        onClick={() => start.mutate()}
      >
        {unsaved ? UNSAVED[place] : DO[place]}
      </Button>
      <Refused error={start.error} className="mt-2" />
    </div>
  );
}
