// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import type { Draft } from "@/keep/draft";
import { BendDialog } from "@/screens/formula/bend";
import { Lines } from "@/screens/formula/lines";
import { page, press, read, Refusal, served, type, type Sent } from "@/test/page";

const bench = { kid: "k", units: "metric", canCook: true };
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/api/queries", () => ({
  useCraft: () => ({
    data: {
      swaps: [
        { old: "corn_starch", new: "rice_flour", words: "rice flour for starch" },
        { old: "milk", new: "oat", words: "oat drink" },
      ],
    },
  }),
}));
vi.mock("@/screens/egg-grades", () => ({
  useEggGrades: () => [
    ["m", "M"],
    ["l", "L"],
  ],
  useGradeName: () => "M",
}));
vi.mock("@/screens/formula/remember", () => ({
  ItIs: ({ name }: { name: string }) => <i>it is {name}</i>,
  OneWeighs: () => <i>one weighs</i>,
}));
vi.mock("@/screens/formula/describe", () => ({
  DescribeDialog: ({ name }: { name: string }) => <b>describing {name}</b>,
}));
vi.mock("@/screens/formula/take", () => ({
  Take: ({ lines }: { lines: string[] | undefined }) => (
    <pre>{lines?.join("|") ?? "nothing to take"}</pre>
  ),
}));
afterEach(cleanup);

type Line = Shapes["LineOut"];
const change = vi.fn();
beforeEach(() => {
  Object.assign(bench, { units: "metric", canCook: true });
  change.mockClear();
});
const line = (text: string, more: Partial<Line> = {}): Line =>
  ({
    text,
    called: text.replace(/^[\d\s]+\w+ /, ""),
    said: "",
    name: "Milk, whole",
    ingredient: "milk",
    metric: "1000 g",
    us: "4 cups",
    confidence: "sure",
    message: "",
    asks: "",
    suggestions: [],
    blank: false,
    grams: 1000,
    ...more,
  }) as Line;
const draft = (lines_text: string, more: object = {}) =>
  ({
    content: { lines_text, egg_grade: "m" },
    field: null,
    message: null,
    change,
    ...more,
  }) as unknown as Draft;
const shown = (lines: Line[], more: { text?: string; readOnly?: boolean; draft?: object } = {}) =>
  page(
    <Lines
      draft={draft(more.text ?? lines.map((l) => l.text).join("\n"), more.draft)}
      found={{ lines } as Shapes["FormulaOut"]}
      readOnly={more.readOnly ?? false}
    />,
  );
const beside = () => [...screen.getByRole("list", { name: /understood/i }).children].map(read);

describe("the lines as they are typed", () => {
  it("have beside them what was understood, in this kitchen’s measures", () => {
    shown([
      line("1 l milk"),
      line("9 yolks", { name: "Egg yolk", metric: "162 g", us: "9 yolks" }),
    ]);
    expect(beside().slice(0, 3)).toEqual(["1000 gmilk", "162 gegg yolk", ""]);
    cleanup();
    bench.units = "us";
    shown([line("1 l milk"), line("5 g salt", { us: "", metric: "5 g" })]);
    expect(beside().slice(0, 2)).toEqual(["4 cupsmilk", "5 gmilk"]);
  });

  it("have nothing beside a line that has been typed over since", () => {
    shown([line("1 l milk"), line("9 yolks")], { text: "1 l milk\n90 yolks" });
    expect(beside().slice(0, 2)).toEqual(["1000 gmilk", ""]);
  });

  it("say their doubts under them, but nothing of what is sure", () => {
    shown([
      line("1 l milk", { message: "Whole milk." }),
      line("1 cup cream", { confidence: "doubtful", message: "Which cream?" }),
      line("2 fog", { confidence: "unknown", ingredient: null as never, message: "What is it?" }),
    ]);
    const doubts = [...screen.getByRole("list", { name: /in doubt/i }).children].map(read);
    expect(doubts).toHaveLength(2);
    expect(doubts[0]).toMatch(/^\?1 cup cream Which cream\?/);
    expect(doubts[1]).toMatch(/^!2 fog What is it\?/);
    expect(beside()[2]).toBe("?What is it?");
  });

  it("take a suggestion in place of the name alone, wherever that line stands", () => {
    const fog = {
      confidence: "unknown",
      ingredient: null as never,
      message: "?",
      suggestions: ["Corn starch, fine"],
    } satisfies Partial<Line>;
    shown([
      line("80 g cronstarch ", { ...fog, called: "cronstarch" }),
      line("1 l milk"),
      line("80 g cronstarch ", { ...fog, called: "cronstarch" }),
    ]);
    fireEvent.click(screen.getAllByRole("button", { name: /corn starch/ })[0] as Element);
    expect(change).toHaveBeenCalledWith({
      lines_text: "80 g corn starch\n1 l milk\n80 g corn starch",
    });
  });

  it("ask what a thing is, what one weighs, or for its label, each of who may say it", () => {
    const asks = {
      confidence: "unknown",
      ingredient: null,
      message: "?",
      asks: "name",
      suggestions: ["Xylitol"],
    } as Partial<Line>;
    shown([
      line("20 g birchsugar", { ...asks, called: "birchsugar" }),
      line("1 can fog", { confidence: "doubtful", message: "How big?", asks: "can" }),
    ]);
    expect(read(document.body)).toMatch(/it is Xylitol.*one weighs/s);
    press(/describe it/i);
    expect(read(document.body)).toContain("describing birchsugar");
    cleanup();
    bench.canCook = false;
    shown(
      [
        line("20 g birchsugar", { ...asks, called: "birchsugar" }),
        line("1 can fog", { confidence: "doubtful", message: "How big?", asks: "can" }),
      ],
      { readOnly: true },
    );
    expect(read(document.body)).not.toMatch(/it is Xylitol|one weighs/);
    expect(screen.getByRole<HTMLTextAreaElement>("textbox").readOnly).toBe(true);
  });

  it("say that only two hundred count, and what the server refused", () => {
    shown([], {
      text: Array(201).fill("1 g salt").join("\n"),
      draft: { field: "lines_text", message: "Too long." },
    });
    expect(screen.getAllByRole("alert").map(read)).toEqual([
      expect.stringMatching(/200/),
      "Too long.",
    ]);
    cleanup();
    shown([], { text: Array(200).fill("1 g salt").join("\n") });
    expect(screen.queryByRole("alert")).toBeNull();
  });
});

describe("a formula bent to a wish", () => {
  let sent: Sent[];
  let answer: unknown;
  const OUT = {
    unmet: [], egg_grade: "m", lines: ["1 l milk", "70 g corn starch"], before: { class: "pipe", sugar_pct: 20, fat_pct: 8, yolk_per_1000: 100 },
    after: { class: "slice", sugar_pct: 20.2, fat_pct: 8.5, yolk_per_1000: 100 }, changes: [{ before: "80 g corn starch", after: "", why: "firmer" }],
  }; // prettier-ignore
  const found = {
    lines: [{ ingredient: "corn_starch" }, { ingredient: "egg_yolk" }],
    eggs: { grade: "M" },
    family: null,
  } as unknown as Shapes["FormulaOut"];
  beforeEach(() => {
    answer = OUT;
    sent = served(() => answer);
  });
  const dialog = () =>
    page(<BendDialog draft={draft("1 l milk")} found={found} onClose={() => undefined} />);
  const wishes = () => (sent.at(-1)?.body as { wishes: Record<string, unknown> }).wishes;

  it("asks nothing before there is a wish, and then shows what changes and what it costs", async () => {
    dialog();
    expect(sent).toEqual([]);
    fireEvent.click(screen.getByRole("radio", { name: /slices/i }));
    expect(read(await screen.findByTestId("bend-words"))).toBe("Pipes → Slicesfat 8.0 → 8.5 %");
    expect(wishes()["set_class"]).toBe("slice");
    expect(read(screen.getAllByRole("row")[1])).toBe("80 g corn starchoutfirmer");
    expect(read(document.querySelector("pre"))).toBe("1 l milk|70 g corn starch");
    press(/keep the set/i);
    await waitFor(() => expect(screen.queryByTestId("bend-words")).toBeNull());
  });

  it("offers only swaps of what is in it, one for each, and whole eggs where there are yolks", async () => {
    dialog();
    expect(screen.queryByRole("checkbox", { name: /oat drink/ })).toBeNull();
    fireEvent.click(screen.getByRole("checkbox", { name: /rice flour/ }));
    await waitFor(() =>
      expect(wishes()["swaps"]).toEqual([{ old: "corn_starch", new: "rice_flour" }]),
    );
    fireEvent.click(screen.getByRole("checkbox", { name: /rice flour/ }));
    fireEvent.click(screen.getByRole("checkbox", { name: /gluten/ }));
    await waitFor(() => expect(wishes()).toMatchObject({ swaps: [], without: ["gluten"] }));
    fireEvent.click(screen.getByRole("checkbox", { name: /whole eggs/i }));
    await waitFor(() => expect(wishes()["whole_eggs"]).toBe(true));
  });

  it("says what cannot be met, that nothing has to change, and gives nothing to take then", async () => {
    answer = { ...OUT, changes: [], unmet: ["It cannot slice without starch."] };
    dialog();
    fireEvent.click(screen.getByRole("checkbox", { name: /less eggy/i }));
    expect(read(await screen.findByTestId("unmet"))).toBe("It cannot slice without starch.");
    expect(read(document.body)).toMatch(/nothing has to change/i);
    expect(read(document.querySelector("pre"))).toBe("nothing to take");
  });

  it("says what is wrong with what there is, at its field", async () => {
    answer = new Refusal(422, { message: "What is fog?", field: "wishes.have" });
    dialog();
    type(/I have only/i, "9 fog");
    const said = await screen.findByText("What is fog?");
    expect(screen.getByLabelText(/I have only/i).getAttribute("aria-describedby")).toBe(said.id);
  });
});
