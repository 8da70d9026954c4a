// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";

import { Contains, incomplete } from "@/ui/contains";

afterEach(cleanup);
const all = { allergens: ["milk", "eggs"], allergens_untold: [], complete: true };
const shown = (known: Parameters<typeof Contains>[0]["of"]) => {
  render(<Contains of={known} />);
  return screen.getByTestId("contains").textContent;
};

it("names the allergens, or says that there is none", () => {
  expect(shown(all)).toBe("contains milk; eggs");
  cleanup();
  expect(shown({ ...all, allergens: [] })).toBe("contains none of the listed");
});

it.each([
  [{ ...all, complete: false }, "a line was not understood"],
  [{ ...all, allergens_untold: ["rye praline", "hay oil"] }, "rye praline, hay oil"],
  [{ ...all, complete: false, allergens_untold: ["hay oil"] }, "a line was not understood"],
])("never looks like all of them while something is not known (%#)", (known, why) => {
  expect(shown(known)).toContain(why);
  expect(incomplete(known)).toContain("incomplete");
  cleanup();
  expect(shown({ ...known, allergens: [] })).not.toContain("none of the listed");
});
