import { useSearchParams } from "react-router";

import type { Shapes } from "@/api/client";
import { say } from "@/say";

export type Part = Shapes["PartOut"];
export type PartKind = Part["kind"];

export const KINDS: Record<PartKind, string> = {
  crust: say("formula.crust"),
  filling: say("formula.filling"),
  caramel: say("formula.caramel"),
  meringue: say("formula.meringue"),
  cream: say("formula.cream"),
  glaze: say("formula.glaze"),
  garnish: say("formula.garnish"),
};

/**
 * The part of a dessert somebody works on: in the address, so that it can be gone back to. `first`
 * says which one a place begins with.
 */
export function usePart(
  dessert: Shapes["DessertOut"] | undefined,
  first: (part: Part) => boolean = () => true,
): {
  part: Part | undefined;
  choose: (id: string) => void;
} {
  const [params, setParams] = useSearchParams();
  const wanted = params.get("part");
  const usual = dessert?.parts.find(first) ?? dessert?.parts[0];
  const part = dessert?.parts.find((p) => p.id === wanted) ?? usual;
  return { part, choose: (id) => setParams(id === usual?.id ? {} : { part: id }) };
}

/** What is added to a link so that it stays with the part. */
export const partQuery = (dessert: Shapes["DessertOut"], part: Part): string =>
  part.id === dessert.parts[0]?.id ? "" : `?part=${part.id}`;
