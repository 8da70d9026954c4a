// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import Book from "@/screens/book";
import { marksOf, strays } from "@/test/drawn";
import { address, page, read, served, type Sent } from "@/test/page";
import { CLASSES } from "@/words";

vi.mock("@/bench", () => ({
  useBench: () => ({
    kid: "k",
    units: "metric",
    kitchen: { ovens: [{ name: "Deck" }], rings: [{ name: "Left" }] },
  }),
}));
afterEach(cleanup);

type Card = Shapes["BatchCard"];
const card = (id: string, more: Partial<Card> = {}): Card =>
  ({
    id, dessert: "Quince flan", dessert_id: "d1", version: 2, whole: false, started_at: "2026-03-02T09:00:00Z",
    ended_at: "2026-03-02T10:00:00Z", took_s: 3600, peak_c: 82.4, cook: "Runa", predicted_class: "pipe",
    verdict: { texture: "slice", faults: ["grainy"], note: "a bit firm" }, ...more,
  }) as Card; // prettier-ignore
let batches: Card[];
let chart: object;
let sent: Sent[];
const asked = () => sent.filter((s) => s.path.endsWith("/batches"));

beforeEach(() => {
  batches = [card("b1")];
  chart = { points: [], faults: [], set_limits: null, peak_limits: null };
  sent = served((s) => {
    if (s.path.endsWith("/batches")) return s.query["before"] ? [] : batches;
    if (s.path.endsWith("/chart")) return chart;
    if (s.path.endsWith("/curves")) return [];
    return {
      families: [],
      faults: [{ key: "grainy", name: "grainy to the tongue" }],
      allergens: [],
    };
  });
});
const shown = async () => {
  const view = page(<Book />);
  await screen.findByRole("heading", { level: 1 });
  return view;
};

describe("the book", () => {
  it("says of a batch what was cooked, how long, how hot, and how it came out", async () => {
    await shown();
    await waitFor(() => expect(read(screen.getByRole("listitem"))).toMatch(/to the tongue/));
    const row = read(screen.getByRole("listitem"));
    expect(row).toMatch(
      /Quince flan.*version 2.*Runa.*1:00:00.*82 °C.*grainy to the tongue.*a bit firm/,
    );
  });

  it("shows where it was predicted and where it came out on one line of classes", async () => {
    await shown();
    const strip = screen.getByRole("img", { name: /predicted.*came out/i });
    const [ring, dot] = marksOf(strip, "circle").map((m) => (m.left + m.right) / 2);
    const ticks = marksOf(strip, "path").slice(1).map((m) => m.left); // prettier-ignore
    expect([ring, dot]).toEqual([ticks[CLASSES.indexOf("pipe")], ticks[CLASSES.indexOf("slice")]]);
    cleanup();
    for (const texture of CLASSES) {
      batches = [card("b", { verdict: { texture, faults: [], note: "" } as never })];
      await shown();
      const strip = screen.getByRole("img", { name: /came out/i });
      expect(strays(strip)).toEqual([]);
      const anchor = { unmould: "end", pour: "start" }[texture as string] ?? "middle";
      expect(strip.querySelector("text")?.getAttribute("text-anchor")).toBe(anchor);
      cleanup();
    }
  });

  it("leads to the cook of what still goes on, to the batch of what has ended", async () => {
    batches = [
      card("b1"),
      card("b2", { ended_at: null, verdict: null, took_s: null, peak_c: null }),
      card("b3", { verdict: null }),
    ];
    await shown();
    const ways = screen
      .getAllByRole("link", { name: /Quince flan/ })
      .map((a) => a.getAttribute("href"));
    expect(ways).toEqual(["/k/k/book/b1", "/k/k/cook/b2", "/k/k/book/b3"]);
    const rows = screen.getAllByRole("listitem").map(read);
    expect(rows[1]).toMatch(/not ended yet/i);
    expect(rows[1]).not.toMatch(/not judged/i);
    expect(rows[2]).toMatch(/not judged yet/i);
  });

  it("asks the server for what is wanted and says where nothing is like that", async () => {
    await shown();
    fireEvent.change(screen.getByLabelText(/^came out$/i), { target: { value: "pipe" } });
    fireEvent.change(screen.getByLabelText(/^from$/i), { target: { value: "2026-02-01" } });
    await waitFor(() =>
      expect(asked().at(-1)?.query).toMatchObject({
        texture: "pipe",
        since: "2026-02-01T00:00:00Z",
      }),
    );
    batches = [];
    fireEvent.change(screen.getByLabelText(/by dessert/i), { target: { value: "fog" } });
    expect(await screen.findByText(/no batch like that/i)).toBeTruthy();
    fireEvent.change(screen.getByLabelText(/^from$/i), { target: { value: "" } });
    await waitFor(() =>
      expect(asked().at(-1)?.query).toMatchObject({ search: "fog", since: null }),
    );
  });

  it("is empty with a word of what to do, and then has nothing to find", async () => {
    batches = [];
    await shown();
    expect(read(document.body)).toMatch(/nothing cooked yet/i);
    expect(screen.queryByLabelText(/by dessert/i)).toBeNull();
  });

  it("shows one dessert’s chart, opens a batch of it and goes back to all", async () => {
    const point = (id: string) => ({
      id,
      set_s: 3,
      at: "2026-03-02T09:00:00Z",
      faults: [],
      peak_c: 82,
      texture: "pipe",
      version: 1,
    });
    chart = {
      points: [point("p1"), point("p2")],
      set_limits: { low: 2, high: 4 },
      peak_limits: { low: 81, high: 84 },
      faults: [
        { week: "2026-03-02", fault: "grainy", count: 2 },
        { week: "2026-03-09", fault: "grainy", count: 1 },
      ],
    };
    await shown();
    fireEvent.click(screen.getByRole("button", { name: /only.*Quince flan/i }));
    const section = await screen.findByTestId("chart");
    await waitFor(() => expect(asked().at(-1)?.query).toMatchObject({ dessert: "d1" }));
    expect(read(section)).toMatch(/81 °C.*84 °C/);
    expect(read(screen.getByTestId("fault-weeks"))).toMatch(
      /grainy to the tongue 2×; .*grainy to the tongue\./,
    );
    fireEvent.click(screen.getAllByRole("button", { name: /version/i })[1] as Element);
    expect(address()).toBe("/k/k/book/p2");
    fireEvent.click(screen.getByRole("button", { name: /every dessert/i }));
    await waitFor(() => expect(screen.queryByTestId("chart")).toBeNull());
  });

  it("has no chart of a single batch", async () => {
    chart = { points: [{ id: "p1" }], faults: [], set_limits: null, peak_limits: null };
    await shown();
    fireEvent.click(screen.getByRole("button", { name: /only/i }));
    await waitFor(() => expect(sent.some((s) => s.path.endsWith("/chart"))).toBe(true));
    expect(screen.queryByTestId("chart")).toBeNull();
  });

  it("fetches earlier ones on demand, after the last it has", async () => {
    batches = Array.from({ length: 60 }, (_, i) =>
      card(`b${i}`, { started_at: `2026-02-01T09:${String(i).padStart(2, "0")}:00Z` }),
    );
    await shown();
    fireEvent.click(screen.getByRole("button", { name: /earlier/i }));
    await waitFor(() => expect(asked().at(-1)?.query["before"]).toBe("2026-02-01T09:59:00Z"));
    await waitFor(() => expect(screen.queryByRole("button", { name: /earlier/i })).toBeNull());
  });
});
