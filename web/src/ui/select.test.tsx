// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";

import { Select, type Option } from "@/ui/field";

afterEach(cleanup);

function choice<V extends string | number | null>(
  value: V,
  options: Parameters<typeof Select<V>>[0]["options"],
  more: { error?: string; disabled?: boolean } = {},
) {
  const onValue = vi.fn<(value: V) => void>();
  render(<Select label="Oven" value={value} options={options} onValue={onValue} {...more} />);
  const box = screen.getByLabelText<HTMLSelectElement>("Oven");
  return {
    box,
    words: () => [...box.options].map((o) => o.textContent),
    choose: (text: string) => fireEvent.change(box, { target: { value: text } }),
    told: () => onValue.mock.calls.map(([v]) => v),
  };
}

describe("one of several values", () => {
  it("offers a table in its order and tells the key", () => {
    const { box, words, choose, told } = choice<"none" | "half">("half", {
      none: "no water",
      half: "half way up",
    });
    expect([words(), box.value]).toEqual([["no water", "half way up"], "half"]);
    choose("none");
    expect(told()).toEqual(["none"]);
  });

  it("tells a number as a number and nothing chosen as null", () => {
    const listed: Option<number | null>[] = [[null, "an ordinary one"], [7, "Back deck"]]; // prettier-ignore
    const { box, choose, told } = choice<number | null>(7, listed);
    expect(box.value).toBe("7");
    choose("");
    choose("7");
    expect(told()).toEqual([null, 7]);
  });

  it("cannot be given what is not on its list, and marks what is taken", () => {
    const listed: Option<string>[] = [["a", "A", true], ["b", "B"]]; // prettier-ignore
    const { box, choose, told } = choice("b", listed);
    expect([...box.options].map((o) => o.disabled)).toEqual([true, false]);
    choose("c");
    expect(told()).toEqual([]);
  });

  it("says what is wrong at itself", () => {
    const { box } = choice("a", [["a", "A"]], { error: "That oven is gone.", disabled: true });
    const said = screen.getByRole("alert");
    expect(said.textContent).toBe("That oven is gone.");
    expect([box.getAttribute("aria-describedby"), box.disabled]).toEqual([said.id, true]);
  });
});
