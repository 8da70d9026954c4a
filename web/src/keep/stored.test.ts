import { afterEach, describe, expect, it, vi } from "vitest";

import { draftKey, keptDrafts, readStored, writeStored } from "@/keep/stored";

const closed = () => {
  throw new DOMException("full, or closed to us", "QuotaExceededError");
};
afterEach(() => vi.unstubAllGlobals());

describe("what a browser keeps", () => {
  it("comes back as it was, and is gone when it is told to be", () => {
    const kept = new Map<string, string>();
    vi.stubGlobal("localStorage", {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    });
    expect(readStored("a")).toBeNull();
    expect(writeStored("a", { lines: ["1 l milk"] })).toBe(true);
    expect(readStored("a")).toEqual({ lines: ["1 l milk"] });
    writeStored("a", null);
    expect([readStored("a"), kept.size]).toEqual([null, 0]);
    kept.set("a", "{cut off");
    expect(readStored("a")).toBeNull();
  });

  it("never stops a cook when it is full or closed", () => {
    vi.stubGlobal("localStorage", { getItem: closed, setItem: closed, removeItem: closed });
    expect(readStored("a")).toBeNull();
    expect(writeStored("a", 1)).toBe(false);
    expect(writeStored("a", null)).toBe(false);
  });

  it("counts the formulas that wait to be saved, and nothing else", () => {
    vi.stubGlobal("localStorage", { [draftKey("v1")]: "{}", [draftKey("v2")]: "{}", other: "1" });
    expect(keptDrafts()).toBe(2);
    vi.stubGlobal("localStorage", undefined);
    expect(keptDrafts()).toBe(0);
  });
});
