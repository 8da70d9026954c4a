// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { client, type Shapes } from "@/api/client";
import { useCourse } from "@/screens/cook/live";

type Live = Shapes["LiveOut"];

let readings: { t_s: number; temp_c: number }[] = [];
let step = "heat";
let away = false;
const asked: number[] = [];
const tell: ((live: Live) => void)[] = [];
vi.mock("@/keep/outbox", () => ({
  outboxOf: () => ({ hear: (listener: (live: Live) => void) => (tell.push(listener), () => 0) }),
  useWaiting: () => [],
}));

const answer = (after_ms: number) =>
  ({
    server_now: "2026-12-01T09:00:00Z", step, rungs: 0, ended: false,
    last_ms: readings.at(-1) ? (readings.at(-1)?.t_s ?? 0) * 1000 : -1,
    readings: readings.filter((p) => p.t_s * 1000 > after_ms),
  }) as unknown as Live; // prettier-ignore
vi.spyOn(client, "GET").mockImplementation(((
  _: string,
  init: { params: { query: { after_ms: number } } },
) => {
  const { after_ms } = init.params.query;
  asked.push(after_ms);
  if (away) return Promise.reject(new TypeError("away"));
  return Promise.resolve({
    data: answer(after_ms),
    response: { ok: true, status: 200, url: "" },
  });
}) as never);

function watched() {
  const store = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={store}>{children}</QueryClientProvider>
  );
  return renderHook(() => useCourse("k", "batch"), { wrapper }).result;
}
const polls = (count: number) => act(() => vi.advanceTimersByTimeAsync(300 * count));
const curve = (from: number, to: number) =>
  Array.from({ length: to - from }, (_, n) => ({ t_s: from + n, temp_c: 20 + from + n }));

describe("a cook as it is watched", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    asked.length = tell.length = 0;
    readings = curve(0, 3);
    [step, away] = ["heat", false];
  });
  afterEach(() => {
    cleanup();
    vi.useRealTimers();
  });

  it("asks for everything once, then for what is new, and has each reading once", async () => {
    const course = watched();
    await polls(1);
    readings = curve(0, 5);
    await polls(2);
    expect(asked).toEqual([-1, 2000, 2000, 4000]);
    expect(course.current.live?.all.map((p) => p.t_s)).toEqual([0, 1, 2, 3, 4]);
  });

  it("fetches all of it again now and then: what was delivered late fills its gap", async () => {
    const late = { t_s: 1, temp_c: 21 };
    readings = [...curve(0, 1), ...curve(2, 4)];
    const course = watched();
    await polls(2);
    readings = [...curve(0, 1), late, ...curve(2, 4)];
    await polls(5);
    expect(course.current.live?.all.map((p) => p.t_s)).toEqual([0, 2, 3]);
    await polls(35);
    expect(course.current.live?.all.map((p) => p.t_s)).toEqual([0, 1, 2, 3]);
    expect(asked.filter((after) => after === -1)).toHaveLength(2);
  });

  it("says the server is away, keeps what it has, and goes on when it is back", async () => {
    const course = watched();
    await polls(1);
    away = true;
    await polls(2);
    expect([course.current.away, course.current.live?.all.length]).toEqual([true, 3]);
    [away, readings] = [false, curve(0, 6)];
    await polls(2);
    expect([course.current.away, course.current.live?.all.length]).toEqual([false, 6]);
  });

  it("goes on at once with what the server answered to a move", async () => {
    const course = watched();
    await polls(1);
    step = "temper";
    readings = curve(0, 4);
    await act(async () => {
      tell[0]?.(answer(-1));
      await vi.advanceTimersByTimeAsync(1);
    });
    expect(asked).toHaveLength(2); // no question was asked for it
    expect(course.current.live?.step).toBe("temper");
    expect(course.current.live?.all.map((p) => p.t_s)).toEqual([0, 1, 2, 3]);
  });

  it("draws a long cook with fewer points, the newest whole", async () => {
    readings = curve(0, 3000);
    const course = watched();
    await polls(1);
    const all = course.current.live?.all ?? [];
    expect(all.length).toBe(2250);
    expect([all[0]?.t_s, all[1]?.t_s, all.at(-1)?.t_s]).toEqual([0, 2, 2999]);
    expect(all.slice(-1500).map((p) => p.t_s)).toEqual(curve(1500, 3000).map((p) => p.t_s));
  });
});
