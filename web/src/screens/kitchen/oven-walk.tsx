import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { learn } from "@/screens/kitchen/learn";
import { Button } from "@/ui/button";
import { Input, NumberField } from "@/ui/field";
import { Refused } from "@/ui/states";
import { fromCelsius, millimetres, toCelsius, type Units } from "@/units";
import { say } from "@/say";

/** "0 21" or "0:30; 21,4" a line: minutes in the oven and what the probe in the water shows. */
function readLines(text: string, units: Units): { t_s: number; temp_c: number }[] {
  return text.split("\n").flatMap((line) => {
    const [time = "", temp = ""] = line.trim().split(/[\s;]+/);
    const [m = "", s = "0"] = time.split(":");
    const minutes = Number(m.replace(",", ".")) + Number(s) / 60;
    const value = Number(temp.replace(",", "."));
    if (!temp || Number.isNaN(minutes) || Number.isNaN(value)) return [];
    return [{ t_s: minutes * 60, temp_c: toCelsius(value, units) }];
  });
}

/** One open pan of water in the oven, its temperature every few minutes: three figures fitted. */
export function Walk({ oven }: { oven: Shapes["OvenOut"] }) {
  const { kid, units } = useBench();
  const store = useQueryClient();
  const [dial, setDial] = useState(160);
  const [water, setWater] = useState(1000);
  const [shelf, setShelf] = useState("");
  const [text, setText] = useState("");
  const unit = units === "us" ? "°F" : "°C";
  const readings = readLines(text, units);
  const onShelf = shelf.trim() ? toCelsius(Number(shelf.replace(",", ".")), units) : null;
  const noShelf = Number.isNaN(onShelf);
  const walk = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/ovens/{oven_id}/walk", {
          params: { path: { kid, oven_id: oven.id } },
          body: {
            set_c: dial,
            water_ml: water,
            pan_length_mm: 325,
            pan_width_mm: 265,
            readings,
            shelf_c: onShelf,
          },
        }),
      ),
    onSuccess: (next) => learn(store, kid, next.kitchen),
  });
  return (
    <form
      className="grid gap-3 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        walk.mutate();
      }}
    >
      <p className="text-soft">
        {say("kitchen.heat_empty_put_in_an_open", {
          oven: oven.name,
          long: millimetres(325, units),
          wide: millimetres(265, units),
        })}
      </p>
      <div className="grid grid-cols-2 gap-4">
        <NumberField
          key={`dial${units}`}
          label={say("kitchen.dial")}
          value={Math.round(fromCelsius(dial, units))}
          low={Math.round(fromCelsius(60, units))}
          high={Math.round(fromCelsius(320, units))}
          unit={unit}
          onValue={(v) => setDial(toCelsius(v, units))}
        />
        <NumberField
          label={say("kitchen.water")}
          value={water}
          low={200}
          high={20000}
          step={100}
          unit={say("kitchen.ml")}
          onValue={setWater}
        />
      </div>
      <Input
        label={say("kitchen.thermometer_on_the_shelf_if_there", { unit })}
        inputMode="decimal"
        value={shelf}
        error={noShelf ? say("kitchen.a_temperature_please") : null}
        onChange={(event) => setShelf(event.target.value)}
      />
      <label className="block">
        <span className="caption block">{say("kitchen.minutes_and_in_the_water_a", { unit })}</span>
        <textarea
          className="field min-h-36 font-mono"
          value={text}
          placeholder={"0 20\n5 27\n10 36\n15 45\n20 53\n25 60\n30 66"}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <p className="caption">{say("kitchen.readings_understood", { readings: readings.length })}</p>
      <Refused error={walk.error} />
      {walk.data && (
        <p role="status" className="border-l-[3px] border-leaf pl-3" data-testid="walked">
          {walk.data.found.says}
        </p>
      )}
      <Button
        type="submit"
        kind="act"
        disabled={walk.isPending || noShelf || readings.length === 0}
      >
        {say("kitchen.fit_this_oven")}
      </Button>
    </form>
  );
}
