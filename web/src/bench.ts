import { useSyncExternalStore } from "react";
import { useParams } from "react-router";

import type { Shapes } from "@/api/client";
import { useKitchen } from "@/api/queries";
import { readStored, writeStored } from "@/keep/stored";
import type { Units } from "@/units";

export interface Bench {
  kid: string;
  kitchen: Shapes["KitchenOut"];
  units: Units;
  canEdit: boolean;
  canCook: boolean;
}

/** The kitchen somebody works in. Only below a route where it has been fetched. */
export function useBench(): Bench {
  const kid = useParams()["kid"] ?? "";
  const kitchen = useKitchen(kid).data;
  if (!kitchen) throw new Error("useBench outside a kitchen");
  return {
    kid,
    kitchen,
    units: kitchen.units,
    canEdit: kitchen.role === "chef",
    canCook: kitchen.role !== "viewer",
  };
}

interface OnBench {
  id: string;
  name: string;
}

const keyOf = (kid: string) => `crumb.bench.${kid}`;
const listeners = new Set<() => void>();
let seen: { kid: string; on: OnBench | null } | undefined;

function onBench(kid: string): OnBench | null {
  if (seen?.kid !== kid) seen = { kid, on: readStored<OnBench>(keyOf(kid)) };
  return seen.on;
}

export function putOnBench(kid: string, id: string, name: string): void {
  const on = onBench(kid);
  if (on?.id === id && on.name === name) return;
  seen = { kid, on: { id, name } };
  writeStored(keyOf(kid), seen.on);
  listeners.forEach((tell) => tell());
}

/** The dessert on the bench: the one worked on last. */
export function useOnBench(kid: string): OnBench | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => onBench(kid),
  );
}
