import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { learn } from "@/screens/kitchen/learn";
import { Walk } from "@/screens/kitchen/oven-walk";
import { Adding } from "@/screens/kitchen/adding";
import { Button } from "@/ui/button";
import { NumberField, Select } from "@/ui/field";
import { kelvins, type Units } from "@/units";
import { say } from "@/say";
import { OVEN_KINDS } from "@/words";

type Oven = Shapes["OvenOut"];

/** What an oven takes when nobody counted. */
const NEW = { shelves: 2, shelf_length_mm: 600, shelf_width_mm: 400 };

const about = (oven: Oven, units: Units) => {
  const off = Math.abs(oven.dial_error_k);
  const dial =
    off < 0.5
      ? say("kitchen.true_to_its_dial")
      : say("kitchen.than_its_dial", {
          off: kelvins(off, units, 0),
          dial_error_k: oven.dial_error_k < 0 ? say("kitchen.cooler") : say("kitchen.hotter"),
        });
  const shelves = `${oven.shelves} ${oven.shelves === 1 ? say("kitchen.shelf") : say("kitchen.shelves_2")}`;
  return `${OVEN_KINDS[oven.kind]}, ${dial}, ${oven.measured ? say("kitchen.measured_2") : say("kitchen.not_measured")}, ${shelves}`;
};

/** The kitchen’s ovens with their dial error, and the walk that measures it. */
export function Ovens() {
  const { kid, kitchen, units, canEdit } = useBench();
  const [kind, setKind] = useState<Oven["kind"]>("static");
  const [off, setOff] = useState(0);
  const [walking, setWalking] = useState<number | null>(null);
  return (
    <section aria-labelledby="ovens">
      <h2 id="ovens" className="mb-2 text-2xl">
        {say("kitchen.ovens")}
      </h2>
      <ul>
        {kitchen.ovens.map((oven) => (
          <li key={oven.id} className="rule-b py-1">
            <div className="flex items-center justify-between gap-3">
              <span>
                {oven.name}
                <span className="caption block">{about(oven, units)}</span>
              </span>
              {canEdit && (
                <Button
                  kind="quiet"
                  className="!px-2"
                  aria-expanded={walking === oven.id}
                  aria-label={say("kitchen.change_or_measure", { oven: oven.name })}
                  onClick={() => setWalking(walking === oven.id ? null : oven.id)}
                >
                  {say("kitchen.change")}
                </Button>
              )}
            </div>
            {walking === oven.id && (
              <>
                <Shelves oven={oven} />
                <Walk oven={oven} />
              </>
            )}
          </li>
        ))}
      </ul>
      <Adding
        word={say("kitchen.an_oven")}
        placeholder={say("kitchen.hatch_oven")}
        add={(name) =>
          must(
            client.POST("/api/k/{kid}/ovens", {
              params: { path: { kid } },
              body: { ...NEW, name, kind, dial_error_k: off, measured: false },
            }),
          )
        }
      >
        <Select
          label={say("kitchen.air")}
          value={kind}
          options={{ static: say("kitchen.static"), fan: say("kitchen.fan") }}
          onValue={setKind}
        />
        <NumberField
          key={units}
          label={say("kitchen.above_its_dial")}
          value={units === "us" ? off * 1.8 : off}
          low={-80}
          high={80}
          unit={units === "us" ? "°F" : "K"}
          onValue={(v) => setOff(units === "us" ? v / 1.8 : v)}
        />
      </Adding>
    </section>
  );
}

/** How many shelves, and what stands on one: what a day may bake at once. */
function Shelves({ oven }: { oven: Oven }) {
  const { kid } = useBench();
  const store = useQueryClient();
  const change = useMutation({
    mutationFn: (part: Partial<Oven>) => {
      const { name, kind, dial_error_k, measured, shelves, shelf_length_mm, shelf_width_mm } = {
        ...oven,
        ...part,
      };
      return must(
        client.POST("/api/k/{kid}/ovens", {
          params: { path: { kid } },
          body: { name, kind, dial_error_k, measured, shelves, shelf_length_mm, shelf_width_mm },
        }),
      );
    },
    onSuccess: (next) => learn(store, kid, next),
  });
  return (
    <div className="grid grid-cols-3 gap-4 py-2">
      <NumberField
        label={say("kitchen.shelves")}
        value={oven.shelves}
        low={1}
        high={40}
        stored
        onValue={(v) => change.mutate({ shelves: Math.round(v) })}
      />
      <NumberField
        label={say("kitchen.a_shelfs_length")}
        value={oven.shelf_length_mm}
        low={100}
        high={2000}
        step={10}
        unit={say("kitchen.mm")}
        stored
        onValue={(v) => change.mutate({ shelf_length_mm: Math.round(v) })}
      />
      <NumberField
        label={say("kitchen.its_width")}
        value={oven.shelf_width_mm}
        low={100}
        high={2000}
        step={10}
        unit={say("kitchen.mm")}
        stored
        onValue={(v) => change.mutate({ shelf_width_mm: Math.round(v) })}
      />
    </div>
  );
}
