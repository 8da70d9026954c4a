// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { Colds } from "@/screens/kitchen/colds";
import { Learned } from "@/screens/kitchen/learned";
import { Walk } from "@/screens/kitchen/oven-walk";
import { Prices } from "@/screens/kitchen/prices";
import { Probes } from "@/screens/kitchen/probes";
import { AWAY, field, page, press, read, Refusal, served, type, type Sent } from "@/test/page";

const RULE = { from_c: 57, mid_c: 21, mid_min: 120, end_c: 5, end_min: 360 };
const bench = {
  kid: "k", units: "metric", canEdit: true,
  kitchen: { currency: "€", prices: [] as object[], colds: [] as object[], cool_rule: RULE },
}; // prettier-ignore
let devices: Partial<Shapes["DeviceOut"]>[];
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/api/queries", () => ({ useDevices: () => ({ data: devices }) }));
afterEach(cleanup);

let sent: Sent[];
let answer: (s: Sent) => unknown;
beforeEach(() => {
  Object.assign(bench, { units: "metric", canEdit: true });
  Object.assign(bench.kitchen, { prices: [], colds: [] });
  devices = [];
  answer = () => bench.kitchen;
  sent = served((s) => answer(s));
});
const leave = (label: RegExp | string) => fireEvent.blur(field(label));

describe("what the kitchen pays", () => {
  it("is put in with a comma or a point, and every cost is worked out again", async () => {
    const { store } = page(<Prices />);
    const stale = vi.spyOn(store, "invalidateQueries");
    type(/for/i, " 30 eggs ");
    type(/paid/i, "7,20");
    press(/add it/i);
    await waitFor(() => expect(field(/for/i).value).toBe(""));
    expect(sent[0]?.body).toEqual({ line: "30 eggs", price: 7.2 });
    expect(stale.mock.calls.map(([q]) => q?.queryKey?.[0])).toEqual(["answer", "total", "compare"]);
  });

  it("refuses what is no price before it is sent", () => {
    page(<Prices />);
    type(/for/i, "30 eggs");
    for (const wrong of ["seven", "-1"]) {
      type(/paid/i, wrong);
      expect(screen.getByText(/a number/i)).toBeTruthy();
      expect(screen.getByRole<HTMLButtonElement>("button", { name: /add it/i }).disabled).toBe(
        true,
      );
    }
  });

  it("is one price where its answer was lost and it is sent again, the next another", async () => {
    page(<Prices />);
    answer = () => AWAY;
    type(/for/i, "30 eggs");
    type(/paid/i, "7");
    press(/add it/i);
    await screen.findByText(/not answering/i);
    answer = () => bench.kitchen;
    press(/add it/i);
    await waitFor(() => expect(field(/for/i).value).toBe(""));
    type(/for/i, "1 l milk");
    type(/paid/i, "1");
    press(/add it/i);
    await waitFor(() => expect(sent).toHaveLength(3));
    const ids = sent.map((s) => s.params["price_id"]);
    expect(ids[0]).toBe(ids[1]);
    expect(ids[2]).not.toBe(ids[1]);
  });

  it("says what was refused at the field it is about", async () => {
    page(<Prices />);
    answer = () => new Refusal(422, { message: "What is fog?", field: "line" });
    type(/for/i, "a cup of fog");
    type(/paid/i, "1");
    press(/add it/i);
    const said = await screen.findByText("What is fog?");
    expect(field(/for/i).getAttribute("aria-describedby")).toBe(said.id);
  });

  it("is only read by who may not change it", () => {
    bench.canEdit = false;
    bench.kitchen.prices = [{ id: "x", line: "30 eggs", price: 0.05 }];
    page(<Prices />);
    expect(screen.queryByRole("button")).toBeNull();
    expect(read(screen.getByRole("listitem"))).toBe("30 eggs€ 0.050");
  });
});

describe("an oven walked with a pan of water", () => {
  const OVEN = { id: 4, name: "Deck" } as unknown as Shapes["OvenOut"];

  it("reads minutes and degrees as they are written down", async () => {
    answer = () => ({ kitchen: bench.kitchen, found: { says: "It runs 8 K hot." } });
    page(<Walk oven={OVEN} />);
    type(/minutes and/i, "0 20\n2:30; 31,5\n\nfive 40\n10\n15 48");
    expect(read(document.body)).toMatch(/3 readings understood/);
    type(/thermometer on the shelf/i, "168,5");
    press(/fit this oven/i);
    expect(read(await screen.findByTestId("walked"))).toBe("It runs 8 K hot.");
    expect(sent[0]?.body).toEqual({
      set_c: 160, water_ml: 1000, pan_length_mm: 325, pan_width_mm: 265, shelf_c: 168.5,
      readings: [{ t_s: 0, temp_c: 20 }, { t_s: 150, temp_c: 31.5 }, { t_s: 900, temp_c: 48 }],
    }); // prettier-ignore
  });

  it("turns a US kitchen’s degrees into ours", async () => {
    bench.units = "us";
    answer = () => ({ kitchen: bench.kitchen, found: { says: "" } });
    page(<Walk oven={OVEN} />);
    type(/minutes and/i, "0 68\n10 212");
    type(/^dial/i, "320");
    press(/fit this oven/i);
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.body).toMatchObject({
      set_c: 160,
      shelf_c: null,
      readings: [{ temp_c: 20 }, { temp_c: 100 }],
    });
  });

  it("does not send a shelf that is no temperature, or no readings", () => {
    page(<Walk oven={OVEN} />);
    const fit = screen.getByRole<HTMLButtonElement>("button", { name: /fit this oven/i });
    expect(fit.disabled).toBe(true);
    type(/minutes and/i, "0 20");
    expect(fit.disabled).toBe(false);
    type(/thermometer on the shelf/i, "hot");
    expect(fit.disabled).toBe(true);
    expect(field(/thermometer on the shelf/i).getAttribute("aria-invalid")).toBe("true");
  });
});

describe("refrigerators and the cooling rule", () => {
  it("keep the room that was corrected, whole, once it is left", async () => {
    bench.kitchen.colds = [{ id: 1, name: "Reach-in", kind: "fridge", air_c: 4, trays: 12 }];
    page(<Colds />);
    type(/room for trays/i, "16");
    expect(sent).toEqual([]);
    leave(/room for trays/i);
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.body).toEqual({ name: "Reach-in", kind: "fridge", air_c: 4, trays: 16 });
  });

  it("are added with what the air really is", async () => {
    bench.units = "us";
    page(<Colds />);
    press(/add/i);
    type("Name", "Blast");
    type(/its air/i, "-4");
    fireEvent.change(screen.getByLabelText(/kind/i), { target: { value: "blast" } });
    press(/keep it/i);
    await waitFor(() =>
      expect(sent[0]?.body).toEqual({ name: "Blast", kind: "blast", air_c: -20, trays: 12 }),
    );
  });

  it("change one figure of the rule and leave the others", async () => {
    page(<Colds />);
    const rule = document.querySelector("details") as HTMLDetailsElement;
    rule.open = true;
    fireEvent(rule, new Event("toggle"));
    type(/within/i, "1.5");
    leave(/within/i);
    await waitFor(() => expect(sent[0]?.body).toEqual({ cool_rule: { ...RULE, mid_min: 90 } }));
    type(/in all/i, "49");
    leave(/in all/i);
    expect(sent).toHaveLength(1);
    expect(screen.getByRole("alert").textContent).toMatch(/48/);
  });
});

describe("probes and scales", () => {
  it("show their token once, when they are registered", async () => {
    answer = () => ({ id: "p", name: "Back probe", token: "tok-1" });
    page(<Probes />);
    type(/register/i, " Back probe ");
    fireEvent.change(screen.getByLabelText(/it is a$/i), { target: { value: "scale" } });
    fireEvent.click(screen.getByRole("checkbox"));
    press(/make its token/i);
    expect(read(await screen.findByRole("status"))).toMatch(/Back probe.*tok-1/);
    expect(sent[0]?.body).toMatchObject({ name: "Back probe", kind: "scale", simulated: true });
  });

  it("are registered once where the answer was lost", async () => {
    answer = () => AWAY;
    page(<Probes />);
    type(/register/i, "Back probe");
    press(/make its token/i);
    await screen.findByText(/not answering/i);
    press(/make its token/i);
    await waitFor(() => expect(sent).toHaveLength(2));
    const ids = sent.map((s) => (s.body as { id: string }).id);
    expect(ids[0]).toBe(ids[1]);
  });

  it("say when they were heard last and what they sent that could not be", () => {
    devices = [
      {
        id: "a",
        name: "Left",
        kind: "probe",
        busy: true,
        last_seen_at: "2026-03-02T09:00:00Z",
        refused_at: "2026-03-02T09:01:00Z",
        refused: "Year 1 is no time.",
      },
      { id: "b", name: "Right", kind: "scale", busy: false, last_seen_at: null, refused_at: null },
    ];
    page(<Probes />);
    const [left, right] = screen.getAllByRole("listitem");
    expect(read(left)).toMatch(/last heard.*Year 1 is no time\./i);
    expect(read(right)).toMatch(/scale.*not heard yet/i);
    expect(within(left as HTMLElement).getByRole<HTMLButtonElement>("button").disabled).toBe(true);
    expect(within(right as HTMLElement).getByRole<HTMLButtonElement>("button").disabled).toBe(
      false,
    );
  });
});

describe("what the book teaches", () => {
  const lesson = (kind: string, name: string, more: object = {}) => ({
    kind,
    name,
    called: `${name} ${kind}`,
    on: true,
    by_hand: null,
    mean: 1.1,
    sd: 0.1,
    value: 1.1,
    n: 3,
    seen: [1, 1.2],
    ...more,
  });
  const shown = async (lessons: object[]) => {
    answer = (s) => (s.method === "GET" ? lessons : lessons);
    page(<Learned />);
    await screen.findAllByRole("listitem");
  };
  const changes = () => sent.filter((s) => s.method === "PATCH").map((s) => s.body);

  it("stands under what it is about, by name", async () => {
    await shown([
      lesson("set", "pastry cream"),
      lesson("ring", "Right"),
      lesson("pot", "Left"),
      lesson("ring", "Left"),
      lesson("oven", "Deck"),
    ]);
    expect(screen.getAllByRole("heading", { level: 3 })).toHaveLength(3);
    expect(screen.getAllByRole("listitem").map((li) => read(li.querySelector("b")))).toEqual([
      "Left ring",
      "Left pot",
      "Right ring",
      "Deck oven",
      "pastry cream set",
    ]);
  });

  it("is left out, begun again, or put in by hand, the rest kept", async () => {
    await shown([lesson("ring", "Left", { by_hand: 0.9 })]);
    fireEvent.click(screen.getByRole("checkbox"));
    press(/begin again/i);
    press(/back to what was learned/i);
    type(/by hand/i, "85");
    press(/use this instead/i);
    await waitFor(() => expect(changes()).toHaveLength(4));
    const keep = {
      on: null,
      by_hand: null,
      forget_hand: false,
      begin_again: false,
      kind: "ring",
      name: "Left",
    };
    expect(changes()).toEqual([
      { ...keep, on: false },
      { ...keep, begin_again: true },
      { ...keep, forget_hand: true },
      { ...keep, by_hand: 0.85 },
    ]);
  });

  it("is typed in its own unit: degrees of difference, per cent, S", async () => {
    bench.units = "us";
    await shown([
      lesson("oven", "Deck", { mean: 10 }),
      lesson("set", "pastry cream", { mean: -0.44 }),
      lesson("loss", "Left", { mean: 23.4 }),
    ]);
    const fields = screen.getAllByLabelText<HTMLInputElement>(/by hand/i).map((f) => f.value);
    expect(fields).toEqual(["23", "18", "-0.4"]);
    fireEvent.change(screen.getAllByLabelText(/by hand/i)[1] as Element, {
      target: { value: "27" },
    });
    press(/use this instead/i);
    await waitFor(() => expect(changes()[0]).toMatchObject({ kind: "oven" }));
    expect((changes()[0] as { by_hand: number }).by_hand).toBeCloseTo(15, 6);
  });

  it("is read without a way to change it by who may not", async () => {
    bench.canEdit = false;
    await shown([lesson("ring", "Left", { on: false, by_hand: 0.9 })]);
    expect(read(screen.getByRole("listitem"))).toMatch(/3 batches.*90.*not used/i);
    expect(screen.queryByRole("checkbox")).toBeNull();
  });
});
