// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { useBaking, usePlace, type AtPlace } from "@/screens/place";

const WRITTEN = { ring_id: 1, hot_c: 90, baking: { set_c: 150, film: true } };
let canEdit = true;
const change = vi.fn();
vi.mock("@/bench", () => ({ useBench: () => ({ kid: "k", canEdit }), putOnBench: vi.fn() }));
vi.mock("@/api/queries", () => ({ useDessert: vi.fn() }));
vi.mock("@/keep/draft", () => ({ useDraft: () => ({ content: WRITTEN, change, state: "saved" }) }));

const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={new QueryClient()}>{children}</QueryClientProvider>
);
const at = (cooked: boolean) =>
  ({ dessert: { id: "d" }, part: {}, version: { id: "v", cooked } }) as unknown as AtPlace;
const worked = (cooked: boolean) => renderHook(() => usePlace(at(cooked)), { wrapper }).result;

describe("a part worked on at the stove, in the oven or the cold", () => {
  beforeEach(() => {
    localStorage.clear();
    canEdit = true;
    change.mockClear();
  });
  afterEach(cleanup);

  it("changes a version that nobody has cooked yet", () => {
    const place = worked(false);
    act(() => place.current.change({ hot_c: 85 }));
    expect(change).toHaveBeenCalledWith({ hot_c: 85 });
    expect([place.current.forToday, place.current.today]).toEqual([false, {}]);
  });

  it.each([
    ["one that was cooked", true, true],
    ["one that is not theirs to change", false, false],
  ])("changes today only for %s, until it is put back", (_, cooked, edits) => {
    canEdit = edits;
    const place = worked(cooked);
    act(() => place.current.change({ hot_c: 85 }));
    act(() => place.current.change({ ring_id: 2 }));
    expect(change).not.toHaveBeenCalled();
    expect(place.current.content).toMatchObject({ ring_id: 2, hot_c: 85 });
    expect(place.current.today).toEqual({ ring_id: 2, hot_c: 85 });
    expect(worked(cooked).current.today).toEqual({ ring_id: 2, hot_c: 85 }); // after a reload, too
    act(() => place.current.asWritten());
    expect(place.current.content).toEqual(WRITTEN);
    expect(worked(cooked).current.today).toEqual({});
  });

  it("takes nothing of today into a version that may be changed itself", () => {
    const cooked = worked(true);
    act(() => cooked.current.change({ hot_c: 85 }));
    expect(worked(false).current.content).toEqual(WRITTEN);
  });

  it("sets one thing of the oven and leaves the rest of it", () => {
    const { result } = renderHook(() => useBaking(at(false)), { wrapper });
    act(() => result.current.set({ set_c: 140 }));
    expect(change).toHaveBeenCalledWith({ baking: { set_c: 140, film: true } });
  });
});
