import { describe, expect, it } from "vitest";

import { frameAt, type Frame } from "@/figures/frame";

const frame = (t_min: number, c: number, unset: number, out = false): Frame => ({
  t_min,
  out,
  temp_c: [[c, c + 10]],
  set_pct: [[0, 50]],
  over_pct: [],
  unset_diameter_mm: unset,
});
const FRAMES = [frame(0, 20, 80), frame(10, 60, 40), frame(30, 70, 0, true)];

describe("the cut-open mould at a minute", () => {
  it("lies between two frames in their proportion", () => {
    const at = frameAt(FRAMES, 15);
    expect(at.t_min).toBe(15);
    expect(at.temp_c).toEqual([[62.5, 72.5]]);
    expect(at.unset_diameter_mm).toBe(30);
    expect(at.out).toBe(false); // out only once it is out
  });

  it("is a frame itself at its minute, the first before and the last after all of them", () => {
    expect(frameAt(FRAMES, 10).temp_c).toEqual([[60, 70]]);
    expect(frameAt(FRAMES, -1)).toBe(FRAMES[0]);
    expect(frameAt(FRAMES, 99)).toBe(FRAMES[2]);
  });

  it("takes a grid that only one of them has from nothing", () => {
    const late = { ...frame(20, 70, 0), over_pct: [[80]] };
    expect(frameAt([FRAMES[0] as Frame, late], 5).over_pct).toEqual([[20]]);
  });
});
