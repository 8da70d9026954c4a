// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeAll, describe, expect, it, vi } from "vitest";

import { Choice } from "@/ui/choice";

const GROUPS = [
  { name: null, options: [{ value: "", label: "nothing" }] },
  {
    name: "Dishes",
    options: [
      { value: "r", label: "Ramekin" },
      { value: "b", label: "Brûlée dish" },
    ],
  },
  { name: "Tins", options: [{ value: "t", label: "Springform" }] },
];

beforeAll(() => {
  // What a browser has and jsdom has not.
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(cleanup);

function choice(value = "r") {
  const onValue = vi.fn<(value: string) => void>();
  render(<Choice label="Vessel" groups={GROUPS} value={value} onValue={onValue} />);
  return { onValue, shut: screen.getByRole("button", { name: /Vessel/ }) };
}
const box = () => screen.getByRole<HTMLInputElement>("combobox");
const left = () => screen.getAllByRole("option").map((o) => o.textContent.replace("✓", ""));

describe("one of many", () => {
  it("opens at a letter with the letter in it, and takes what Enter finds", () => {
    const { onValue, shut } = choice();
    fireEvent.keyDown(shut, { key: "b" });
    expect(box().value).toBe("b");
    fireEvent.change(box(), { target: { value: "brulee" } });
    expect(left()).toEqual(["Brûlée dish"]);
    fireEvent.keyDown(box(), { key: "Enter" });
    expect(onValue).toHaveBeenCalledExactlyOnceWith("b");
    expect(screen.queryByRole("combobox")).toBeNull();
  });

  it("is walked through by arrows over its groups, beginning at what is chosen", () => {
    const { onValue, shut } = choice();
    fireEvent.keyDown(shut, { key: "ArrowDown" });
    expect(left()).toEqual(["nothing", "Ramekin", "Brûlée dish", "Springform"]);
    fireEvent.keyDown(box(), { key: "ArrowDown" });
    fireEvent.keyDown(box(), { key: "ArrowDown" });
    fireEvent.keyDown(box(), { key: "ArrowDown" }); // stays at the end
    fireEvent.keyDown(box(), { key: "Enter" });
    expect(onValue).toHaveBeenCalledExactlyOnceWith("t");
  });

  it("tells nothing when the same is taken, and says when nothing has that name", () => {
    const { onValue, shut } = choice();
    fireEvent.click(shut);
    fireEvent.change(box(), { target: { value: "zabaglione" } });
    expect(screen.queryAllByRole("option")).toEqual([]);
    fireEvent.keyDown(box(), { key: "Enter" });
    fireEvent.change(box(), { target: { value: "" } });
    fireEvent.click(screen.getByRole("option", { name: /Ramekin/ }));
    expect(onValue).not.toHaveBeenCalled();
  });
});
