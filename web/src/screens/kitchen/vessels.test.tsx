// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { NewVessel, VesselRow } from "@/screens/kitchen/vessels";
import { plateOf, strays } from "@/test/drawn";
import { page, read, Refusal, served, type, type Sent } from "@/test/page";

vi.mock("@/bench", () => ({ useBench: () => ({ kid: "k", units: "metric" }) }));
afterEach(cleanup);

const GLASS = {
  name: "garden glass", shape: "round", top_mm: 70, bottom_mm: 60, width_mm: 60, depth_mm: 60,
  flute_mm: 0, material: "", measured: false, count: null, brim_ml: 180,
} as unknown as Shapes["VesselOut"]; // prettier-ignore
const row = (vessel: Partial<Shapes["VesselOut"]>) =>
  page(<VesselRow vessel={{ ...GLASS, ...vessel }} />).container;

describe("a vessel in its list", () => {
  it("says its measures, its second side only where it has corners", () => {
    expect(read(row({}))).toBe("garden glass70 mm × 60 mm, 180 ml");
    cleanup();
    const tin = read(row({ shape: "rect", top_mm: 300, width_mm: 110, count: 4, measured: true }));
    expect(tin).toContain("300 mm × 110 mm × 60 mm");
    expect(tin).toMatch(/measured.*4/);
    cleanup();
    expect(read(row({ material: "tin", flute_mm: 5 }))).toMatch(/tinplate.*fluted/);
  });

  it("stays in its small drawing, flat or tall", () => {
    for (const [top_mm, depth_mm] of [
      [70, 60],
      [60, 180],
      [900, 20],
      [30, 400],
    ] as const) {
      expect(strays(plateOf(row({ top_mm, bottom_mm: top_mm, depth_mm })))).toEqual([]);
      cleanup();
    }
  });
});

describe("a vessel added", () => {
  let sent: Sent[];
  let answer: unknown;
  beforeEach(() => {
    answer = { vessels: ["new"] };
    sent = served(() => answer);
  });
  const begun = () => {
    const view = page(<NewVessel />);
    fireEvent.click(screen.getByRole("button", { name: "Add a vessel" }));
    return view;
  };
  const add = () => fireEvent.click(screen.getByRole("button", { name: "Add it" }));

  it("is sent once it has a name, with nought for what nobody counted or measured", async () => {
    const { store } = begun();
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Add it" }).disabled).toBe(true);
    type("Name", "  hay cup ");
    type("How many", "0");
    type(/brim/, "0");
    add();
    await waitFor(() => expect(store.getQueryData(["kitchen", "k"])).toEqual(answer));
    expect(sent[0]?.body).toMatchObject({
      name: "hay cup",
      count: null,
      brim_ml: null,
      top_mm: 70,
    });
    expect(sent[0]?.params["vessel_id"]).toMatch(/^[0-9a-f-]{36}$/);
    expect(screen.getByRole("button", { name: "Add a vessel" })).toBeTruthy();
  });

  it("keeps what was counted and measured, whole", async () => {
    begun();
    type("Name", "cup");
    type("How many", "12");
    type(/brim/, "150.4");
    type(/wall/i, "2.5");
    add();
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.body).toMatchObject({ count: 12, brim_ml: 150, wall_mm: 2.5 });
  });

  it("asks for a bottom and flutes of what is round, for a side of what has corners", () => {
    begun();
    const asks = (label: RegExp) => screen.queryByLabelText(label) !== null;
    expect([asks(/bottom/), asks(/flute/i), asks(/wide/i)]).toEqual([true, true, false]);
    fireEvent.change(screen.getByLabelText("Shape"), { target: { value: "rect" } });
    expect([asks(/bottom/), asks(/flute/i), asks(/wide/i)]).toEqual([false, false, true]);
  });

  it.each([
    ["depth_mm", /deep/i, "round"],
    ["top_diameter_mm", /top/i, "round"],
    ["bottom_diameter_mm", /bottom/i, "round"],
    ["flute_mm", /flute/i, "round"],
    ["length_mm", /long/i, "rect"],
    ["width_mm", /wide/i, "rect"],
    ["name", "Name", "round"],
  ])("says a refusal of %s where it was typed, and keeps the rest", async (field, label, shape) => {
    answer = new Refusal(422, { message: "It cannot be so.", field });
    begun();
    type("Name", "cup");
    fireEvent.change(screen.getByLabelText("Shape"), { target: { value: shape } });
    add();
    const said = await screen.findAllByText("It cannot be so.");
    expect(said).toHaveLength(1);
    expect(screen.getByLabelText(label).getAttribute("aria-describedby")).toBe(said[0]?.id);
    expect(screen.getByLabelText<HTMLInputElement>("Name").value).toBe("cup");
  });

  it("is forgotten on the cook’s word", () => {
    begun();
    fireEvent.click(screen.getByRole("button", { name: "Not now" }));
    expect(screen.queryByLabelText("Name")).toBeNull();
    expect(sent).toEqual([]);
  });
});
