// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import Compare from "@/screens/compare";
import Eggs from "@/screens/eggs";
import Record from "@/screens/record";
import { WriteOut } from "@/screens/write-out";
import { address, page, press, read, Refusal, served, type Sent } from "@/test/page";

const bench = {
  kid: "k",
  units: "metric",
  canCook: true,
  kitchen: { name: "Weir House", currency: "€", egg_grade: "m" },
};
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/api/queries", () => ({
  useCraft: () => ({ data: { faults: [{ key: "grainy", name: "grainy to the tongue" }] } }),
  useDessert: (_: string, id: string) => ({
    data: {
      name: id,
      parts: [
        {
          name: "cream",
          versions: [
            { id: "v1", number: 1, cooked: true },
            { id: "v2", number: 2, cooked: false },
          ],
        },
      ],
    },
  }),
}));
vi.mock("@/screens/pick", () => ({
  PickDessert: ({ onPick }: { onPick: (card: object) => void }) => (
    <button onClick={() => onPick({ id: "d1", name: "Flan" })}>pick</button>
  ),
}));
afterEach(cleanup);

let sent: Sent[];
let answer: (s: Sent) => unknown;
beforeEach(() => {
  localStorage.clear();
  Object.assign(bench, { units: "metric", canCook: true });
  sent = served((s) => answer(s));
});

describe("the eggs of the day", () => {
  const LEDGER = {
    separate: 9, whole: 2, egg_grade: "M", yolk_need_g: 160, yolk_each_g: 18, white_need_g: 60, white_each_g: 30,
    yolk_left_g: 2, white_left_g: 210, says: ["Whites for a meringue."],
    entries: [{ name: "Flan", yolk_g: 160, white_g: 0.4, whole_g: 100 }],
  }; // prettier-ignore
  beforeEach(() => (answer = () => LEDGER));
  const added = async () => {
    press(/add a dessert/i);
    press("pick");
    return screen.findByTestId("eggs-words");
  };

  it("counts what is to be parted and cracked, and shows who takes what", async () => {
    page(<Eggs />);
    expect(read(document.body)).toMatch(/nothing is made today/i);
    expect(read(await added())).toMatch(/9.*2.*M/);
    expect(sent[0]?.body).toEqual({ desserts: [{ dessert_id: "d1", times: 1 }] });
    const rows = within(screen.getByRole("table")).getAllByRole("row").map(read);
    expect(rows[1]).toBe("Flan160 g–100 g");
    expect(rows[2]).toMatch(/2\.0 g210 g/);
  });

  it("takes half a batch, each dessert once, and remembers the day", async () => {
    page(<Eggs />);
    await added();
    await added();
    expect(screen.getAllByLabelText(/batches/i)).toHaveLength(1);
    fireEvent.change(screen.getByLabelText(/batches/i), { target: { value: "0.5" } });
    await waitFor(() =>
      expect(sent.at(-1)?.body).toEqual({ desserts: [{ dessert_id: "d1", times: 0.5 }] }),
    );
    cleanup();
    page(<Eggs />);
    expect(screen.getByLabelText<HTMLInputElement>(/batches/i).value).toBe("0.5");
    press(/take.*Flan/i);
    expect(read(document.body)).toMatch(/nothing is made today/i);
  });

  it("says that no shell is opened where none is", async () => {
    answer = () => ({ ...LEDGER, separate: 0, whole: 0 });
    page(<Eggs />);
    expect(read(await added())).toMatch(/no egg/i);
    expect(document.querySelector("svg")).toBeNull();
  });
});

describe("the record", () => {
  const RULE = { from_c: 63, mid_c: 21, mid_min: 60, end_c: 8, end_min: 90 };
  const row = (id: string, more: object = {}) => ({
    id, at: "2026-03-02T09:00:00Z", product: "Flan", version: 2, who: "Runa", simulated: false, peak_c: 83.2, pasteurised: true,
    rule: "", cool_rule: RULE, cooled_mid_min: 44.6, cooled_end_min: 80, cooled_in_time: true, missed: false, mended: "", ...more,
  }); // prettier-ignore
  const shown = async (rows: object[]) => {
    answer = (s) =>
      s.method === "GET"
        ? rows
        : { ...(rows[0] as object), mended: (s.body as { words: string }).words };
    page(<Record />);
    await screen.findByTestId("record");
  };

  it("says how hot, how fast and by which temperatures of the kitchen’s own rule", async () => {
    await shown([row("b1")]);
    expect(read(screen.getAllByRole("row")[1])).toMatch(
      /Flan version 2Runa83 °Cyes45 min to 21 °C80 min to 8 °Cyes–/,
    );
    cleanup();
    bench.units = "us";
    await shown([row("b1", { cooled_end_min: null })]);
    expect(read(screen.getAllByRole("row")[1])).toMatch(/182 °F.*45 min to 70 °F–/);
  });

  it("is loud where something was missed, and not where it was not measured", async () => {
    await shown([row("b1", { pasteurised: false, cooled_in_time: null })]);
    const cells = [...(screen.getAllByRole("row")[1] as HTMLElement).querySelectorAll("td")];
    expect(cells.filter((c) => c.className.includes("text-burnt")).map(read)).toEqual(["no"]);
    expect(read(cells[7])).toBe("–");
  });

  it("keeps what was done about a miss once the field is left, and only then", async () => {
    await shown([row("b1", { missed: true, cooled_in_time: false })]);
    const words = screen.getByLabelText<HTMLInputElement>(/done about Flan/i);
    fireEvent.blur(words);
    fireEvent.change(words, { target: { value: "thrown away" } });
    expect(sent.filter((s) => s.method === "PUT")).toEqual([]);
    fireEvent.blur(words);
    await waitFor(() =>
      expect(sent.find((s) => s.method === "PUT")?.body).toEqual({ words: "thrown away" }),
    );
    cleanup();
    bench.canCook = false;
    await shown([row("b1", { missed: true, mended: "cooked again" })]);
    expect(screen.queryByLabelText(/done about/i)).toBeNull();
    expect(read(screen.getAllByRole("row")[1])).toMatch(/cooked again/);
  });

  it("asks for whole days and gives the same ones as a table", async () => {
    await shown([row("b1")]);
    fireEvent.change(screen.getByLabelText("From"), { target: { value: "2026-02-01" } });
    fireEvent.change(screen.getByLabelText("From"), { target: { value: "" } });
    await waitFor(() => expect(sent.at(-1)?.query["since"]).toBe("2026-02-01T00:00:00Z"));
    const file = screen.getByRole("link", { name: /table/i }).getAttribute("href");
    expect(file).toContain(`since=${encodeURIComponent("2026-02-01T00:00:00Z")}`);
    expect(decodeURIComponent(file ?? "")).toMatch(/until=\d{4}-\d\d-\d\dT23:59:59Z$/);
  });
});

describe("two formulas side by side", () => {
  const side = (dessert: string, number: number, more: object = {}) => ({
    dessert,
    dessert_id: dessert,
    number,
    note: "",
    cooked: [],
    ...more,
  });
  const formula = (more: object = {}) => ({
    set: { class: "pipe", low_class: "pipe", high_class: "pipe", index: 3.41 }, map: null, points: null, cost: { portion: 0.8 }, portions: 8,
    per_1000_liquid: { yolk_g: 100, whole_egg_g: 0, corn_starch_equivalent_g: 90, sugar_g: 200 }, composition_pct: { fat: 8 }, taste_pct: { sweetness: 18 }, ...more,
  }); // prettier-ignore
  const FOUND = {
    left: side("Flan", 1, { note: "too firm" }), right: side("Tart", 2),
    found: {
      says: ["Less yolk."], left: formula(), right: formula({ set: null, cost: { portion: 0.9 }, per_1000_liquid: { yolk_g: 80, whole_egg_g: 0, corn_starch_equivalent_g: 90, sugar_g: 200 } }),
      pairs: [{ left: "100 g yolk", right: "80 g yolk", change_pct: -20 }, { left: "200 g sugar", right: "201 g sugar", change_pct: 0.4 }, { left: null, right: "5 g salt", change_pct: null }, { left: "1 pod", right: null, change_pct: null }],
    },
  }; // prettier-ignore
  const shown = async (found: object = FOUND) => {
    answer = () => found;
    page(<Compare />, "/k/k/compare?left=v1&right=v2");
    await screen.findByTestId("pairs");
  };

  it("says of each line how it changed for the same liquid", async () => {
    await shown();
    const middle = within(screen.getByTestId("pairs")).getAllByRole("row").slice(1).map((r) => read(r.children[1])); // prettier-ignore
    expect(middle).toEqual(["−20 %", "=", "new", "out"]);
  });

  it("sets the numbers beside each other, loud where they differ, without what neither has", async () => {
    await shown();
    const rows = screen.getAllByRole("row").map((r) => [...r.children].map(read).join("|"));
    expect(rows.some((r) => r === "pipes|sets so that it|–")).toBe(true);
    expect(rows.some((r) => /^100\|yolk.*\|80$/.test(r))).toBe(true);
    expect(rows.some((r) => /^3\.41\|S\|–$/.test(r))).toBe(true);
    expect(rows.some((r) => /whole egg/.test(r))).toBe(false);
    expect(rows.some((r) => /€ 0\.80\|a portion.*\|€ 0\.90/.test(r))).toBe(true);
  });

  it("shows what became of each, and lets another version lie there", async () => {
    const cooked = [
      {
        id: "b1",
        started_at: "2026-03-02T09:00:00Z",
        cook: null,
        texture: null,
        faults: ["grainy"],
        note: "",
      },
    ];
    await shown({ ...FOUND, left: side("Flan", 1, { note: "too firm", cooked }) });
    expect(read(document.body)).toMatch(
      /too firm.*not judged.*grainy to the tongue.*not cooked yet/is,
    );
    fireEvent.change(screen.getAllByRole("combobox")[0] as Element, { target: { value: "v2" } });
    await waitFor(() => expect(address()).toBe("/k/k/compare?left=v2&right=v2"));
  });

  it("asks for two before it compares", () => {
    page(<Compare />, "/k/k/compare?left=v1");
    expect(read(document.body)).toMatch(/nothing to compare/i);
    expect(sent).toEqual([]);
  });
});

describe("everything written out", () => {
  const HEADS: Record<string, string> = {
    "X-Desserts": "12",
    "Content-Disposition": 'attachment; filename="weir.csv"',
  };
  /** An answer that arrives piece by piece. */
  const pieces = (...parts: string[]) => {
    const left = parts.map((part) => ({ done: false, value: Uint8Array.from(part, () => 65) }));
    const read = () => Promise.resolve(left.shift() ?? { done: true });
    return {
      ok: true,
      body: { getReader: () => ({ read }) },
      headers: { get: (n: string) => HEADS[n] },
    };
  };
  let saved: string[];
  beforeEach(() => {
    saved = [];
    Object.assign(URL, { createObjectURL: () => "blob:x", revokeObjectURL: () => undefined });
    vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(function (
      this: HTMLAnchorElement,
    ) {
      saved.push(this.download);
    });
  });

  it("is saved under the server’s name once all of it is there, and says how much", async () => {
    const asked = vi.fn(() => Promise.resolve(pieces("a".repeat(1500), "b".repeat(1500))));
    vi.stubGlobal("fetch", asked);
    page(<WriteOut />);
    press(/^table/);
    expect(read(await screen.findByRole("status"))).toMatch(/12.*3/);
    expect(saved).toEqual(["weir.csv"]);
    expect((asked.mock.calls as unknown[][])[0]?.[0]).toBe("/api/k/k/export?form=csv");
  });

  it("saves nothing where it was refused or stopped", async () => {
    vi.stubGlobal("fetch", () =>
      Promise.resolve({
        ok: false,
        json: () => Promise.resolve({ message: "Nothing is on the shelf." }),
      }),
    );
    page(<WriteOut />);
    press(/^table/);
    expect((await screen.findByRole("alert")).textContent).toBe("Nothing is on the shelf.");
    cleanup();
    vi.stubGlobal(
      "fetch",
      (_: string, { signal }: RequestInit) =>
        new Promise((_ok, no) =>
          signal?.addEventListener("abort", () => no(new DOMException("stopped", "AbortError"))),
        ),
    );
    page(<WriteOut />);
    press(/^table/);
    fireEvent.click(await screen.findByRole("button", { name: /stop/i }));
    expect((await screen.findByRole("alert")).textContent).toMatch(/stopped/i);
    expect(saved).toEqual([]);
  });
});

it("says why a record could not be fetched", async () => {
  answer = () => new Refusal(503, { message: "The store is away." });
  page(<Record />);
  expect(read(await screen.findByRole("alert"))).toContain("The store is away.");
});
