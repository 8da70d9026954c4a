import { beforeEach, describe, expect, it, vi } from "vitest";

import { client, type Shapes } from "@/api/client";
import { keepTick, sendTicks, waitingTicks, withWaiting, type Tick } from "@/keep/ticks";

const kept = new Map<string, string>();
vi.stubGlobal("localStorage", {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
});

const step = (key: string, state: string) => ({ key, state });
const day = {
  plan: { steps: [step("boil", "to_do"), step("bake", "begun"), step("plate", "to_do")] },
} as unknown as Shapes["DayRunning"];
const states = (ticks: [string, Tick["kind"]][]) =>
  withWaiting(
    day,
    ticks.map(([key, kind], n) => ({ id: `${n}`, key, kind, at: "" })),
  ).plan.steps.map((s) => s.state);

beforeEach(() => kept.clear());

describe("ticks of a day", () => {
  it("are seen at once, the last of a step counting", () => {
    expect(states([["boil", "begin"]])).toEqual(["begun", "begun", "to_do"]);
    expect(states([["boil", "begin"], ["boil", "done"]])[0]).toBe("done"); // prettier-ignore
    expect(states([["bake", "undo"]])[1]).toBe("to_do");
    expect(withWaiting(day, [])).toBe(day);
  });

  it("wait on the disk until the server has them, and one made meanwhile waits on", async () => {
    keepTick("d", "boil", "begin");
    keepTick("d", "bake", "done");
    const post = vi.spyOn(client, "POST").mockImplementation(() => {
      keepTick("d", "plate", "begin");
      return Promise.resolve({ data: day, response: new Response() });
    });
    expect(await sendTicks("k", "d")).toBe(day);
    expect(waitingTicks("d").map((t) => t.key)).toEqual(["plate"]);
    expect(post).toHaveBeenCalledTimes(1);
    post.mockRestore();
  });

  it("stay when the server is away, each once", async () => {
    keepTick("d", "boil", "begin");
    const post = vi.spyOn(client, "POST").mockRejectedValue(new TypeError("away"));
    await expect(sendTicks("k", "d")).rejects.toThrow();
    expect(waitingTicks("d")).toHaveLength(1);
    expect(await sendTicks("k", "another day")).toBeNull();
    post.mockRestore();
  });
});
