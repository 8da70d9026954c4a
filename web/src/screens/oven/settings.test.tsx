// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { ApiError } from "@/api/client";
import { BAKING } from "@/api/defaults";
import type { Content } from "@/api/queries";
import { bakingOf, GHOSTS, otherVessels, type Baking } from "@/screens/oven/baking";
import { OvenSettings } from "@/screens/oven/settings";
import { field, has, type } from "@/test/page";

const bench = { units: "metric" };
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/screens/oven/oven-select", () => ({
  OvenSelect: ({ error }: { error: string | null }) => <p>{error}</p>,
}));
afterEach(cleanup);
beforeEach(() => {
  bench.units = "metric";
  [change, set].forEach((f) => f.mockClear());
});

const [change, set] = [vi.fn(), vi.fn()];
type Props = Parameters<typeof OvenSettings>[0];
const shown = (
  baking: Partial<Baking> = {},
  content: Partial<Content> = {},
  more: Partial<Props> = {},
) =>
  render(
    <OvenSettings
      content={
        { bath_level: "none", bath_mm: 20, baking: { ...BAKING, ...baking }, ...content } as Content
      }
      {...{ change, set, fixed: false, off: false, problem: null }}
      {...more}
    />,
  );
const tick = (name: RegExp) => fireEvent.click(screen.getByRole("checkbox", { name }));

describe("how it is baked", () => {
  it("has its dial as a number in the kitchen’s degrees and as a knob that says the same", () => {
    shown({ set_c: 150 });
    expect(field(/^dial/i).value).toBe("150");
    type(/^dial/i, "165");
    fireEvent.change(screen.getByRole("slider"), { target: { value: "170" } });
    expect(set.mock.calls).toEqual([[{ set_c: 165 }], [{ set_c: 170 }]]);
    cleanup();
    set.mockClear();
    bench.units = "us";
    shown({ set_c: 150 });
    expect(field(/^dial/i).value).toBe("302");
    expect(screen.getByRole("slider").getAttribute("aria-valuetext")?.replace("\u202f", " ")).toBe(
      "302 °F",
    );
    type(/^dial/i, "325");
    type(/^dial/i, "700");
    expect(set.mock.calls).toEqual([[{ set_c: 162.8 }]]);
  });

  it("asks how deep the water is only where it is told in millimetres, and how hot where there is any", () => {
    const asks = () => [has(/water stands/i), has(/water poured at/i)];
    shown();
    expect(asks()).toEqual([false, false]);
    cleanup();
    shown({}, { bath_level: "half" });
    expect(asks()).toEqual([false, true]);
    cleanup();
    shown({}, { bath_level: "mm" });
    expect(asks()).toEqual([true, true]);
    type(/water stands/i, "25.4");
    expect(change).toHaveBeenLastCalledWith({ bath_mm: 25 });
    fireEvent.change(field(/water bath/i), { target: { value: "beside" } });
    expect(change).toHaveBeenLastCalledWith({ bath_level: "beside" });
  });

  it("turns its ticks into what they mean", () => {
    shown();
    tick(/cold oven/i);
    tick(/floor/i);
    tick(/hot at first/i);
    tick(/measured/i);
    expect(set.mock.calls).toEqual([
      [{ preheated: false }],
      [{ stand: "deck" }],
      [{ first_c: 220 }],
      [{ poured_c: 20 }],
    ]);
    cleanup();
    set.mockClear();
    shown({ preheated: false, stand: "deck", first_c: 220, poured_c: 0 });
    tick(/cold oven/i);
    tick(/floor/i);
    tick(/hot at first/i);
    tick(/measured/i);
    expect(set.mock.calls).toEqual([
      [{ preheated: true }],
      [{ stand: "rack" }],
      [{ first_c: null }],
      [{ poured_c: null }],
    ]);
  });

  it("asks for the first heat, the mix and the crust once they are there, nought degrees among them", () => {
    const asks = () => [has(/^at first/i), has(/poured at$/i), has(/^crust/i)];
    shown();
    expect(asks()).toEqual([false, false, false]);
    cleanup();
    shown({ first_c: 220, poured_c: 0, crust: "pastry" });
    expect(asks()).toEqual([true, true, true]);
    expect(field(/^poured at/i).value).toBe("0");
    fireEvent.change(field(/in a crust/i), { target: { value: "crumb" } });
    expect(set).toHaveBeenLastCalledWith({ crust: "crumb" });
  });

  it.each([
    [/^dial/i, "320", "321"],
    [/water stands/i, "400", "401"],
    [/water poured at/i, "0", "-1"],
    [/^crust/i, "20", "21"],
    [/^poured at/i, "75", "76"],
    [/^for$/i, "240", "0"],
  ])("takes at %s %s, but not %s", (label, most, more) => {
    shown({ first_c: 220, poured_c: 20, crust: "pastry", crust_mm: 3 }, { bath_level: "mm" });
    type(label, most);
    expect(set.mock.calls.length + change.mock.calls.length).toBe(1);
    type(label, more);
    expect(set.mock.calls.length + change.mock.calls.length).toBe(1);
    expect(field(label).getAttribute("aria-invalid")).toBe("true");
  });

  it("leaves the formula’s own alone where that is fixed, and all of it to who only reads", () => {
    shown({}, { bath_level: "mm" }, { fixed: true });
    expect([
      field(/water bath/i).disabled,
      field(/water stands/i).disabled,
      field(/^dial/i).disabled,
    ]).toEqual([true, true, false]);
    cleanup();
    shown({}, {}, { fixed: true, off: true });
    expect(screen.getAllByRole<HTMLInputElement>("checkbox").every((c) => c.disabled)).toBe(true);
    expect(field(/^dial/i).disabled).toBe(true);
  });

  it.each([
    ["baking.set_c", /^dial/i],
    ["bath_level", /water bath/i],
    ["tray", /water bath/i],
    ["baking.crust_mm", /in a crust/i],
    ["baking.poured_c", /^poured at/i],
  ])("says what was refused of %s there", (name, label) => {
    shown({ poured_c: 20 }, {}, { problem: new ApiError(422, "It cannot be so.", name, null) });
    expect(field(label).getAttribute("aria-describedby")).toContain(
      screen.getByText("It cannot be so.").id,
    );
  });
});

describe("what a bake is compared with", () => {
  const CONTENT = {
    bath_level: "none",
    fill_pct: 90,
    fill_by: "all",
    vessel_key: "v1",
    baking: { ...BAKING, set_c: 150, oven_id: 1 },
  } as unknown as Content;
  const KITCHEN = {
    ovens: [{ id: 1 }, { id: 2 }],
    vessels: [
      { id: "v1", name: "cup" },
      { id: "v2", name: "tin", kind: "pan" },
      { id: "v3", name: "glass" },
    ],
  } as never;
  const of = (name: string, content = CONTENT, kitchen = KITCHEN) =>
    GHOSTS[name]?.of(content, kitchen);

  it("changes what it is called by and nothing else", () => {
    expect(of("hotter")?.baking?.set_c).toBe(170);
    expect(of("cooler")?.baking?.set_c).toBe(130);
    expect(of("cold")?.baking?.poured_c).toBe(5);
    expect(of("foil")?.baking?.covered).toBe(!BAKING.covered);
    expect(of("bath")?.bath_level).toBe("half");
    expect(of("bath", { ...CONTENT, bath_level: "rim" })?.bath_level).toBe("none");
    expect(of("shallow")).toMatchObject({ fill_by: "share", fill_pct: 60 });
    for (const [name, ghost] of Object.entries(GHOSTS)) {
      const changed = ghost.of(CONTENT, KITCHEN);
      expect([name, changed.vessel_key]).toEqual([name, "v1"]);
      expect(bakingOf(changed).doneness).toBe(BAKING.doneness);
    }
    expect(CONTENT.baking?.set_c).toBe(150);
  });

  it("takes the other oven where there is one", () => {
    expect(of("oven")?.baking?.oven_id).toBe(2);
    expect(of("oven", { ...CONTENT, baking: undefined } as never)?.baking?.oven_id).toBe(2);
    expect(of("oven", CONTENT, { ovens: [{ id: 1 }] } as never)).toBe(CONTENT);
  });

  it("lays it in the kitchen’s other vessels, but in no pan", () => {
    const others = otherVessels(CONTENT, KITCHEN);
    expect(others.map((o) => o.key)).toEqual(["in:v3"]);
    expect(others[0]?.of(CONTENT)).toMatchObject({
      vessel_key: "v3",
      fill_by: "share",
      fill_pct: 90,
      tray_key: "",
    });
  });

  it("names degrees and their differences as the kitchen reads them", () => {
    const name = (key: string, units: "metric" | "us") =>
      GHOSTS[key]?.name(units).replaceAll("\u202f", " ");
    expect(name("hotter", "metric")).toMatch(/20 K/);
    expect(name("cooler", "us")).toMatch(/36 °F/);
    expect(name("cold", "us")).toMatch(/41 °F/);
  });
});
