import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Input, NumberField, Select } from "@/ui/field";
import { millilitres, millimetres } from "@/units";
import { newId } from "@/keep/id";
import { say } from "@/say";

/** One vessel of the kitchen, drawn to scale among the others. */
export function VesselRow({ vessel }: { vessel: Shapes["VesselOut"] }) {
  const { units } = useBench();
  const widest = Math.max(vessel.top_mm, vessel.bottom_mm);
  const per = Math.min(56 / 220, 60 / widest, 26 / vessel.depth_mm);
  const [top, bottom, depth] = [vessel.top_mm * per, vessel.bottom_mm * per, vessel.depth_mm * per];
  return (
    <li className="rule-b flex items-center gap-4 py-2">
      <svg width="64" height="30" viewBox="-32 -28 64 30" aria-hidden="true" className="shrink-0">
        <path
          d={`M${-top / 2} ${-depth} L${-bottom / 2} 0 H${bottom / 2} L${top / 2} ${-depth}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.6"
          strokeDasharray={vessel.flute_mm > 0 ? "2.5 1" : undefined}
        />
      </svg>
      <span className="flex-1">{vessel.name}</span>
      <span className="caption max-w-[55%] text-right">
        {millimetres(vessel.top_mm, units)} ×{" "}
        {vessel.shape !== "round" && `${millimetres(vessel.width_mm, units)} × `}
        {millimetres(vessel.depth_mm, units)}, {millilitres(vessel.brim_ml, units)}
        {vessel.material !== "" && `, ${materials()[vessel.material]}`}
        {vessel.flute_mm > 0 && say("kitchen.fluted")}
        {vessel.measured && say("kitchen.measured")}
        {vessel.count !== null && say("kitchen.of_them", { count: vessel.count })}
      </span>
    </li>
  );
}

type Change = Shapes["VesselChange"];

function materials(): Record<Shapes["VesselOut"]["material"], string> {
  return {
    "": say("kitchen.nobody_said"),
    aluminium: say("kitchen.aluminium"),
    cast_iron: say("kitchen.cast_iron"),
    copper: say("kitchen.copper"),
    foil: say("kitchen.foil"),
    glass: say("kitchen.made_of_glass"),
    paper: say("kitchen.paper"),
    plastic: say("kitchen.plastic"),
    porcelain: say("kitchen.porcelain"),
    silicone: say("kitchen.silicone"),
    steel: say("kitchen.steel"),
    stoneware: say("kitchen.stoneware"),
    tin: say("kitchen.tinplate"),
  };
}

const START: Change = {
  name: "",
  kind: "glass",
  shape: "round",
  top_mm: 70,
  bottom_mm: 60,
  width_mm: 60,
  depth_mm: 60,
  flute_mm: 0,
  wall_mm: 0,
  material: "",
  brim_ml: null,
  count: null,
};

export function NewVessel() {
  const { kid } = useBench();
  const store = useQueryClient();
  const [id, setId] = useState<string | null>(null);
  const [made, setMade] = useState<Change>(START);
  const set = (part: Partial<Change>) => setMade({ ...made, ...part });
  const save = useMutation({
    mutationFn: (vesselId: string) =>
      must(
        client.PUT("/api/k/{kid}/vessels/{vessel_id}", {
          params: { path: { kid, vessel_id: vesselId } },
          body: { ...made, name: made.name.trim() },
        }),
      ),
    onSuccess: (next) => {
      store.setQueryData(["kitchen", kid], next);
      setId(null);
      setMade(START);
    },
  });
  if (id === null) {
    return (
      <Button className="mt-3" onClick={() => setId(newId())}>
        {say("kitchen.add_a_vessel")}
      </Button>
    );
  }
  const error = save.error instanceof ApiError ? save.error : null;
  const at = (...fields: string[]) =>
    error?.field && fields.includes(error.field) ? error.message : null;
  const known = at(
    "length_mm",
    "width_mm",
    "top_diameter_mm",
    "bottom_diameter_mm",
    "depth_mm",
    "flute_mm",
  );
  const round = made.shape === "round";
  return (
    <form
      className="mt-3 grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (made.name.trim()) save.mutate(id);
      }}
    >
      <Input
        label={say("kitchen.name")}
        value={made.name}
        maxLength={80}
        placeholder={say("kitchen.garden_glass")}
        error={known ? null : error?.message}
        onChange={(event) => set({ name: event.target.value })}
      />
      <div className="grid grid-cols-2 gap-4">
        <Select
          label={say("kitchen.kind")}
          value={made.kind}
          options={{
            glass: say("kitchen.glass"),
            ring: say("kitchen.ring"),
            shell: say("kitchen.shell"),
            mould: say("kitchen.mould"),
            pan: say("kitchen.pan_or_tray"),
          }}
          onValue={(kind) => set({ kind })}
        />
        <Select
          label={say("kitchen.shape")}
          value={made.shape}
          options={{
            round: say("kitchen.round"),
            rect: say("kitchen.with_corners"),
            oval: say("kitchen.oval"),
          }}
          onValue={(shape) => set({ shape })}
        />
        <Select
          label={say("kitchen.made_of")}
          value={made.material}
          options={materials()}
          onValue={(material) => set({ material })}
        />
        <NumberField
          label={say("kitchen.how_many")}
          value={made.count ?? 0}
          low={0}
          high={5000}
          hint={say("kitchen.0_always_enough")}
          onValue={(n) => set({ count: n > 0 ? Math.round(n) : null })}
        />
      </div>
      <div className="grid grid-cols-3 gap-4">
        <NumberField
          label={round ? say("kitchen.across_the_top") : say("kitchen.long")}
          value={made.top_mm}
          low={10}
          high={900}
          unit={say("kitchen.mm")}
          error={at("length_mm", "top_diameter_mm")}
          onValue={(top_mm) => set({ top_mm })}
        />
        {round ? (
          <NumberField
            label={say("kitchen.across_the_bottom")}
            value={made.bottom_mm}
            low={10}
            high={900}
            unit={say("kitchen.mm")}
            error={at("bottom_diameter_mm")}
            onValue={(bottom_mm) => set({ bottom_mm })}
          />
        ) : (
          <NumberField
            label={say("kitchen.wide")}
            value={made.width_mm}
            low={10}
            high={900}
            unit={say("kitchen.mm")}
            error={at("width_mm")}
            onValue={(width_mm) => set({ width_mm })}
          />
        )}
        <NumberField
          label={say("kitchen.deep")}
          value={made.depth_mm}
          low={1}
          high={400}
          unit={say("kitchen.mm")}
          error={at("depth_mm")}
          onValue={(depth_mm) => set({ depth_mm })}
        />
      </div>
      <div className="grid grid-cols-3 gap-4">
        {round && (
          <NumberField
            label={say("kitchen.flutes_cut_in")}
            value={made.flute_mm}
            low={0}
            high={100}
            unit={say("kitchen.mm")}
            error={at("flute_mm")}
            onValue={(flute_mm) => set({ flute_mm })}
          />
        )}
        <NumberField
          label={say("kitchen.wall")}
          value={made.wall_mm}
          low={0}
          high={50}
          step={0.5}
          unit={say("kitchen.mm")}
          hint={say("kitchen.0_as_usual")}
          onValue={(wall_mm) => set({ wall_mm })}
        />
        <NumberField
          label={say("kitchen.to_the_brim")}
          value={made.brim_ml ?? 0}
          low={0}
          high={200000}
          unit={say("kitchen.ml")}
          hint={say("kitchen.0_worked_out")}
          onValue={(ml) => set({ brim_ml: ml > 0 ? Math.round(ml) : null })}
        />
      </div>
      <div className="flex gap-3">
        <Button kind="act" type="submit" disabled={!made.name.trim() || save.isPending}>
          {say("kitchen.add_it")}
        </Button>
        <Button kind="quiet" onClick={() => setId(null)}>
          {say("kitchen.not_now")}
        </Button>
      </div>
    </form>
  );
}
