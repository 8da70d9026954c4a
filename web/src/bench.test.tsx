// @vitest-environment jsdom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

let kitchen: { role: string; units: string } | undefined;
vi.mock("react-router", () => ({ useParams: () => ({ kid: "k" }) }));
vi.mock("@/api/queries", () => ({ useKitchen: () => ({ data: kitchen }) }));

import { putOnBench, useBench, useOnBench } from "@/bench";

describe("the kitchen somebody works in", () => {
  beforeEach(() => localStorage.clear());
  afterEach(cleanup);

  it.each([
    ["chef", true, true],
    ["cook", false, true],
    ["viewer", false, false],
  ])("lets a %s do what that role may", (role, edits, cooks) => {
    kitchen = { role, units: "us" };
    const { canEdit, canCook, units, kid } = renderHook(() => useBench()).result.current;
    expect([canEdit, canCook, units, kid]).toEqual([edits, cooks, "us", "k"]);
  });

  it("is a mistake of ours to ask for before it is there", () => {
    kitchen = undefined;
    const quiet = vi.spyOn(console, "error").mockImplementation(() => undefined);
    expect(() => renderHook(() => useBench())).toThrow("outside a kitchen");
    quiet.mockRestore();
  });

  it("remembers the dessert worked on last, by kitchen, and tells whoever shows it", () => {
    const one = renderHook(() => useOnBench("one")).result;
    expect(one.current).toBeNull();
    act(() => putOnBench("one", "d1", "Flan"));
    expect(one.current).toEqual({ id: "d1", name: "Flan" });
    act(() => putOnBench("one", "d1", "Quince flan"));
    expect(one.current?.name).toBe("Quince flan");
    expect(renderHook(() => useOnBench("two")).result.current).toBeNull();
    expect(renderHook(() => useOnBench("one")).result.current?.name).toBe("Quince flan"); // kept
  });

  it("shows the same thing again without drawing anything anew", () => {
    const seen = renderHook(() => useOnBench("three")).result;
    act(() => putOnBench("three", "d", "Tart"));
    const before = seen.current;
    act(() => putOnBench("three", "d", "Tart"));
    expect(seen.current).toBe(before);
  });
});
