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

type Oven = Shapes["OvenOut"];

/** What an oven takes when nobody counted. */
const NEW = { shelves: 2, shelf_length_mm: 600, shelf_width_mm: 400 };

const about = (oven: Oven, units: Units) => {
  const off = Math.abs(oven.dial_error_k);
  const dial =
    off < 0.5
      ? "true to its dial"
      : `${kelvins(off, units, 0)} ${oven.dial_error_k < 0 ? "cooler" : "hotter"} than its dial`;
  const shelves = `${oven.shelves} ${oven.shelves === 1 ? "shelf" : "shelves"}`;
  return `${oven.kind}, ${dial}, ${oven.measured ? "measured" : "not measured"}, ${shelves}`;
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
        Ovens
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
                  aria-label={`Change or measure ${oven.name}`}
                  onClick={() => setWalking(walking === oven.id ? null : oven.id)}
                >
                  change
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
        word="an oven"
        placeholder="Hatch oven"
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
          label="Air"
          value={kind}
          onChange={(event) => setKind(event.target.value as Oven["kind"])}
        >
          <option value="static">static</option>
          <option value="fan">fan</option>
        </Select>
        <NumberField
          key={units}
          label="Above its dial"
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
        label="Shelves"
        value={oven.shelves}
        low={1}
        high={40}
        stored
        onValue={(v) => change.mutate({ shelves: Math.round(v) })}
      />
      <NumberField
        label="A shelf’s length"
        value={oven.shelf_length_mm}
        low={100}
        high={2000}
        step={10}
        unit="mm"
        stored
        onValue={(v) => change.mutate({ shelf_length_mm: Math.round(v) })}
      />
      <NumberField
        label="its width"
        value={oven.shelf_width_mm}
        low={100}
        high={2000}
        step={10}
        unit="mm"
        stored
        onValue={(v) => change.mutate({ shelf_width_mm: Math.round(v) })}
      />
    </div>
  );
}
