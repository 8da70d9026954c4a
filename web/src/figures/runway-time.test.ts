import { describe, expect, it } from "vitest";

import { timeLine } from "@/figures/runway-time";

describe("the line of a day", () => {
  const line = timeLine(
    [
      [0, 60],
      [700, 760],
      [750, 900],
    ],
    0,
    900,
  );

  it("draws hours without work short and keeps the order of everything", () => {
    expect(line.idle).toEqual([[60, 700]]);
    const marks = [0, 60, 300, 700, 760, 900].map(line.at);
    expect(marks).toEqual([...marks].sort((a, b) => a - b));
    expect(marks[0]).toBe(0);
    expect(marks.at(-1)).toBe(1);
    expect(line.at(700) - line.at(60)).toBeCloseTo(40 * line.perMinute);
  });

  it("gives a minute of work the same length wherever it is", () => {
    expect(line.at(60) - line.at(0)).toBeCloseTo(line.at(760) - line.at(700));
  });
});
