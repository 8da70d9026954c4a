// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { BAKING } from "@/api/defaults";
import { BakeFacts } from "@/screens/oven/facts";
import { page, press, read, Refusal, served, type Sent } from "@/test/page";

const bench = { kid: "k", units: "metric" };
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/api/queries", () => ({ useConverted: () => ({ data: undefined, error: null }) }));
vi.mock("@/lessons", () => ({ LearnedFrom: () => null }));
vi.mock("@/figures/bath", () => ({ BathPlate: () => null }));
afterEach(cleanup);

type Props = Parameters<typeof BakeFacts>[0];
const FOUND = {
  doneness: "wobble", pull_from_min: 33.4, pull_to_min: 37.6, pull_low_min: 30.5, pull_high_min: 41, reasons: [],
  probe_from_c: 76.4, probe_to_c: 79.6, carry_over_k: 2.5, peak_centre_c: 81, late_minute_k: 0.8, edge_minus_centre_k: 6.4,
  overdone_pct: 4.9, crack: null, crack_why: "", drivers: [], level_mm: null, water_ml: null, water_left_ml: null, warnings: [],
}; // prettier-ignore
const CHOICES = [
  { set_c: 150, bath: true, pull_min: 45.2, window_min: 6.4, edge_minus_centre_k: 5, overdone_pct: 0, chosen: true },
  { set_c: 120, bath: false, pull_min: 60, window_min: 9, edge_minus_centre_k: 4, overdone_pct: 0, chosen: false },
]; // prettier-ignore
const [set, change] = [vi.fn(), vi.fn()];
let sent: Sent[];
let answer: unknown;
beforeEach(() => {
  bench.units = "metric";
  [set, change].forEach((f) => f.mockClear());
  answer = { says: "150 °C in a bath.", choices: CHOICES };
  sent = served(() => answer);
});
const shown = (found: object = {}, more: Partial<Props> = {}, bath_level = "none") =>
  page(
    <BakeFacts
      plan={{ found: { ...FOUND, ...found }, oven: "Deck oven", learned: [], tray: null, vessel: { depth_mm: 45 } } as unknown as Props["plan"]}
      content={{ bath_level, baking: BAKING } as Props["content"]}
      ghost={undefined} ghostError={null} against={undefined} kind="filling"
      {...{ set, change }}
      {...more}
    />,
  ).container; // prettier-ignore

describe("when to pull a bake", () => {
  it("says its minutes, when to look, what the probe reads and how it goes on", () => {
    const text = read(shown());
    expect(read(screen.getByTestId("pull"))).toBe("33–38min");
    expect(text).toMatch(/31.*41/);
    expect(text).toMatch(/76 °C.*80 °C/);
    expect(text).toMatch(/2\.5 K.*81 °C/);
    expect(text).not.toMatch(/5 %/); // so little past it is not spoken of
    cleanup();
    expect(read(shown({ overdone_pct: 5 }))).toMatch(/5 %/);
  });

  it("says that it never sets instead of numbers", () => {
    expect(read(shown({ pull_from_min: null }))).toMatch(/never sets/i);
    expect(screen.queryByTestId("pull")).toBeNull();
  });

  it("says what lies beside it: its minutes, that it never sets, why it cannot be, or that it comes", () => {
    const beside = (more: Partial<Props>) => {
      shown({}, { against: "20 K hotter", ...more });
      const text = read(screen.getByTestId("ghost-words"));
      cleanup();
      return text;
    };
    const ghost = (found: object) => ({
      ghost: { found: { ...FOUND, ...found } } as unknown as Props["ghost"],
    });
    expect(beside(ghost({}))).toMatch(/20 K hotter.*33.*38.*6 K.*5 %/);
    expect(beside(ghost({ pull_from_min: null }))).toMatch(/never sets/i);
    expect(beside({ ghostError: "No second oven." })).toBe("No second oven.");
    expect(beside({})).toBe("…");
  });

  it("names what would move it, the most first, each by how much", () => {
    const drivers = [
      { what: "start", minutes: -2.4 },
      { what: "oven cooler", minutes: 6.1 },
      { what: "deeper", minutes: 400 },
    ];
    const rows = () => {
      shown({ drivers });
      const found = screen.getAllByRole("listitem", { hidden: true }).map(read);
      cleanup();
      return found;
    };
    const [deeper, cooler, warmer] = rows();
    expect(deeper).toMatch(/deeper.*\+.*hours/i);
    expect(cooler).toMatch(/8 K.*\+6\.1 min/);
    expect(warmer).toMatch(/5 K.*−2\.4 min/);
    bench.units = "us";
    expect(rows()[1]).toMatch(/14 °F/);
  });
});

describe("oven and bath chosen for the cook", () => {
  const chosen = async (more: Partial<Props> = {}, bath_level = "none") => {
    shown({}, more, bath_level);
    press(/try them/i);
    await screen.findByText("150 °C in a bath.");
    return screen.getAllByRole<HTMLButtonElement>("button", { name: /take/i, hidden: true });
  };

  it("asks within the time there is", async () => {
    shown();
    fireEvent.change(screen.getByLabelText(/within/i), { target: { value: "60" } });
    fireEvent.change(screen.getByLabelText(/so that/i), { target: { value: "long_window" } });
    press(/try them/i);
    await screen.findByText("150 °C in a bath.");
    expect(sent[0]?.body).toMatchObject({ wish: "long_window", within_min: 60, kind: "filling" });
  });

  it("is taken whole, the bath with the dial", async () => {
    const [bath, dry] = await chosen();
    fireEvent.click(bath as Element);
    expect([change.mock.calls, set.mock.calls]).toEqual([
      [[{ bath_level: "half" }]],
      [[{ set_c: 150 }]],
    ]);
    fireEvent.click(dry as Element);
    expect([change.mock.calls.length, set.mock.calls.at(-1)]).toEqual([1, [{ set_c: 120 }]]);
    cleanup();
    change.mockClear();
    const [, out] = await chosen({}, "rim");
    fireEvent.click(out as Element);
    expect(change.mock.calls).toEqual([[{ bath_level: "none" }]]);
  });

  it("is not taken half by who may not change the bath", async () => {
    const takes = await chosen({ change: null });
    expect(takes.map((b) => b.disabled)).toEqual([true, false]);
  });

  it("says why none could be tried", async () => {
    answer = new Refusal(422, { message: "How deep is it?" });
    shown();
    press(/try them/i);
    expect((await screen.findByRole("alert")).textContent).toBe("How deep is it?");
  });
});
