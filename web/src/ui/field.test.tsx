// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";

import { NumberField } from "@/ui/field";

afterEach(cleanup);

function field(more: Partial<Parameters<typeof NumberField>[0]> = {}) {
  const onValue = vi.fn<(value: number) => void>();
  const props = { label: "Dial", value: 150, low: 60, high: 300, unit: "°C", onValue, ...more };
  const view = render(<NumberField {...props} />);
  const box = screen.getByLabelText<HTMLInputElement>("Dial");
  return {
    onValue,
    box,
    type: (text: string) => fireEvent.change(box, { target: { value: text } }),
    key: (key: string) => fireEvent.keyDown(box, { key }),
    leave: () => fireEvent.blur(box),
    now: (value: number) => view.rerender(<NumberField {...props} value={value} />),
    told: () => onValue.mock.calls.map(([value]) => value),
    alert: () => screen.queryByRole("alert")?.textContent ?? null,
  };
}

describe("a number with its unit", () => {
  it("is told at each key, a comma as a point", () => {
    const { type, told, alert } = field();
    type("16");
    expect(alert()).toContain("60"); // on the way to 165
    type("162,5");
    expect(told()).toEqual([162.5]);
    expect(alert()).toBeNull();
  });

  it("says its range when it is left there or is no number, and keeps what was typed", () => {
    const { type, told, alert, box, leave } = field();
    for (const text of ["400", "a lot", ""]) {
      type(text);
      leave();
      expect(alert()).toMatch(/60.*300.*°C/);
      expect(box.value).toBe(text);
      expect(box.getAttribute("aria-invalid")).toBe("true");
    }
    expect(told()).toEqual([]);
  });

  it("goes up and down by its step and no further than its ends", () => {
    const { key, told } = field({ value: 297, step: 5 });
    key("ArrowUp");
    key("ArrowDown");
    expect(told()).toEqual([300, 292]);
  });

  it("shows what it is given again once it is left", () => {
    const { type, leave, now, box } = field();
    type("150.0");
    leave();
    expect(box.value).toBe("150");
    now(161.238);
    expect(box.value).toBe("161.24");
  });
});

describe("a number that is stored", () => {
  it("is told once, when it is left or Enter is pressed", () => {
    const { type, key, leave, told, box } = field({ stored: true });
    type("165");
    expect(told()).toEqual([]);
    key("Enter");
    leave();
    expect(told()).toEqual([165]);
    expect(box.value).toBe("165"); // until the store has it
  });

  it("is not told when it is what was there, and gives way to what another one stored", () => {
    const { type, leave, told, now, box } = field({ stored: true });
    type("150");
    leave();
    expect(told()).toEqual([]);
    type("170");
    now(180);
    expect(box.value).toBe("180");
  });
});
