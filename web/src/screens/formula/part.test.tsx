// @vitest-environment jsdom
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter, useLocation } from "react-router";
import { afterEach, describe, expect, it } from "vitest";

import type { Shapes } from "@/api/client";
import { partQuery, usePart, type Part } from "@/screens/formula/part";

const part = (id: string, kind: Part["kind"]) => ({ id, kind }) as Part;
const TART = {
  parts: [part("crust", "crust"), part("cream", "cream"), part("glaze", "glaze")],
} as Shapes["DessertOut"];

function worked(at: string, first?: (p: Part) => boolean) {
  const wrapper = ({ children }: { children: ReactNode }) => (
    <MemoryRouter initialEntries={[at]}>{children}</MemoryRouter>
  );
  const useWorked = () => ({ ...usePart(TART, first), search: useLocation().search });
  return renderHook(useWorked, { wrapper }).result;
}

describe("the part somebody works on", () => {
  afterEach(cleanup);

  it("is in the address, so that it can be gone back to", () => {
    const at = worked("/d");
    expect(at.current.part?.id).toBe("crust");
    act(() => at.current.choose("glaze"));
    expect([at.current.part?.id, at.current.search]).toEqual(["glaze", "?part=glaze"]);
    act(() => at.current.choose("crust")); // the usual one needs no words
    expect([at.current.part?.id, at.current.search]).toEqual(["crust", ""]);
  });

  it("begins with the one a place is for, and falls back to the first", () => {
    const cream = (p: Part) => p.kind === "cream";
    expect(worked("/d", cream).current.part?.id).toBe("cream");
    expect(worked("/d?part=crust", cream).current.part?.id).toBe("crust");
    expect(worked("/d?part=gone", cream).current.part?.id).toBe("cream");
    expect(worked("/d", (p) => p.kind === "meringue").current.part?.id).toBe("crust");
  });

  it("stays with a link to another place, unless it is the first", () => {
    const [crust, cream] = TART.parts as [Part, Part];
    expect([partQuery(TART, crust), partQuery(TART, cream)]).toEqual(["", "?part=cream"]);
  });
});
