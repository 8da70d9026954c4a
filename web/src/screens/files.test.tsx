// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import Files from "@/screens/files";
import { AWAY, page, read, Refusal, served, type Sent } from "@/test/page";

const bench = { kid: "k", canEdit: true };
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/screens/write-out", () => ({ WriteOut: () => null }));
afterEach(cleanup);

const dessert = (name: string, more: object = {}) => ({
  name, lines: 4, sure: 4, doubts: [], problems: [],
  parts: [{ name: "", kind: "cream", versions: [{ lines_text: "500 g milk\n\n4 yolks" }] }], ...more,
}); // prettier-ignore
type Kept = { desserts: { id: string; name: string }[] };
let file: ReturnType<typeof dessert>[];
let keeping: (sent: Sent, nth: number) => unknown;
let sent: Sent[];
const asked = (what: "read" | "keep") => sent.filter((s) => s.path.endsWith(what));

beforeEach(() => {
  bench.canEdit = true;
  keeping = () => ({ kept: 1 });
  sent = served((s) => {
    if (s.path.endsWith("keep")) return keeping(s, asked("keep").length);
    const { skip, take } = s.query as { skip: number; take: number };
    return { total: file.length, desserts: file.slice(skip, skip + take) };
  });
});
const shown = async (of: typeof file) => {
  file = of;
  const view = page(<Files />);
  const chooser = screen.getByLabelText("File of formulas");
  fireEvent.change(chooser, { target: { files: [new File(["x"], "book.csv")] } });
  await screen.findByTestId("import-report");
  return view;
};
const keep = () => fireEvent.click(screen.getByRole("button", { name: /keep/i }));
const many = (n: number) => Array.from({ length: n }, (_, i) => dessert(`Flan ${i}`));

describe("formulas taken in", () => {
  it("are read a hundred at a time and shown before anything is kept", async () => {
    await shown(many(230));
    expect(asked("read").map((s) => s.query["skip"])).toEqual([0, 100, 200]);
    expect(read(screen.getByTestId("import-report"))).toMatch(/230 .*[ ,]920 .*/);
    expect(read(screen.getByTestId("import-report"))).not.toMatch(/doubt/);
    expect(asked("keep")).toEqual([]);
  });

  it("stop reading where a file promises more than it has", async () => {
    file = many(3);
    sent = served((s) => ({ total: 9000, desserts: s.query["skip"] === 0 ? file : [] }));
    await shown(file);
    expect(sent).toHaveLength(2);
  });

  it("show the parts of a few, with their lines counted", async () => {
    await shown([dessert("Quince flan")]);
    expect(read(screen.getByTestId("import-report"))).toMatch(/Quince flan.*cream.*2 lines/);
    cleanup();
    const hay = { name: "Hay cream", kind: "cream", versions: [{ lines_text: "1 l milk" }] };
    await shown([dessert("Flan", { parts: [hay, { ...hay, name: "Cream" }] })]);
    expect(read(screen.getByTestId("import-report"))).toMatch(/Hay cream.*1 line/);
    expect(read(screen.getByTestId("import-report"))).not.toMatch(/ Cream/);
    cleanup();
    await shown(many(4));
    expect(read(screen.getByTestId("import-report"))).not.toMatch(/Flan 1/);
  });

  it("are kept twenty at a time, and the shelf is fetched again", async () => {
    const { store } = await shown(many(45));
    const stale = vi.spyOn(store, "invalidateQueries");
    keep();
    await screen.findByText(/on the shelf/);
    expect(asked("keep").map((s) => (s.body as Kept).desserts.length)).toEqual([20, 20, 5]);
    expect(stale).toHaveBeenCalledWith({ queryKey: ["shelf", "k"] });
  });

  it("are each kept once, also where an answer was lost and they are sent again", async () => {
    await shown(many(30));
    keeping = (_, nth) => (nth === 2 ? AWAY : { kept: 1 });
    keep();
    await screen.findByRole("alert");
    keep();
    await screen.findByText(/on the shelf\.$|all .* shelf/i);
    const bodies = asked("keep").map((s) => (s.body as Kept).desserts);
    expect(bodies.map((b) => b.length)).toEqual([20, 10, 10]);
    expect(bodies[2]?.map((d) => d.id)).toEqual(bodies[1]?.map((d) => d.id));
    expect(new Set(bodies.flat().map((d) => d.id)).size).toBe(30);
  });

  it("go on from where they were stopped", async () => {
    await shown(many(45));
    let give: (v: unknown) => void = () => undefined;
    keeping = (_, nth) => (nth === 2 ? new Promise((done) => (give = done)) : { kept: 1 });
    keep();
    await waitFor(() => expect(asked("keep")).toHaveLength(2));
    fireEvent.click(screen.getByRole("button", { name: /stop/i }));
    give({ kept: 1 });
    const again = await screen.findByRole("button", { name: /40.*keep|keep.*5/i });
    fireEvent.click(again);
    await waitFor(() => expect(asked("keep")).toHaveLength(3));
    expect((asked("keep")[2]?.body as Kept).desserts.map((d) => d.name)).toEqual([
      "Flan 40",
      "Flan 41",
      "Flan 42",
      "Flan 43",
      "Flan 44",
    ]);
  });

  it("lead to the one that was kept alone, by the name it was kept under", async () => {
    await shown([dessert("Quince flan")]);
    keep();
    const link = await screen.findByRole("link", { name: /Quince flan/ });
    expect(link.getAttribute("href")).toBe(
      `/k/k/d/${(asked("keep")[0]?.body as Kept).desserts[0]?.id}`,
    );
  });

  it("say which lines are doubtful, and which nobody could read", async () => {
    const doubts = [
      { line: "a cup of fog", message: "What is it?", unknown: true },
      { line: "", message: "No milk.", unknown: false },
    ];
    await shown([
      dessert("Flan", { lines: 6, sure: 4, doubts }),
      dessert("Tart", { problems: ["No lines."] }),
      dessert("Pie"),
    ]);
    const list = screen.getByRole("list", { name: /doubtful/i });
    expect(
      within(list)
        .getAllByRole("listitem")
        .map((li) => read(li.querySelector("b"))),
    ).toEqual(["Flan", "Tart"]);
    expect(within(list).getByText("a cup of fog").className).toContain("burnt");
    expect(read(list)).toMatch(/– No milk/);
    expect(read(screen.getByTestId("import-report"))).toMatch(/2.*doubt/);
    expect(screen.getByRole("button", { name: /doubts and all/i })).toBeTruthy();
  });

  it("can be pasted, and stay in the field until they are kept", async () => {
    file = [dessert("Pasted")];
    page(<Files />);
    const field = screen.getByRole<HTMLTextAreaElement>("textbox");
    const go = screen.getByRole<HTMLButtonElement>("button", { name: "Read it" });
    expect(go.disabled).toBe(true);
    fireEvent.change(field, { target: { value: "500 g milk" } });
    fireEvent.click(go);
    await screen.findByTestId("import-report");
    expect(field.value).toBe("500 g milk");
    keep();
    await waitFor(() => expect(field.value).toBe(""));
  });

  it("say why a file was not read, and keep nothing of the one before", async () => {
    await shown([dessert("Flan")]);
    sent = served(() => new Refusal(422, { message: "A zip is no recipe." }));
    fireEvent.change(screen.getByLabelText("File of formulas"), {
      target: { files: [new File(["x"], "a.zip")] },
    });
    expect((await screen.findByRole("alert")).textContent).toBe("A zip is no recipe.");
    expect(screen.queryByTestId("import-report")).toBeNull();
  });

  it("are the pastry chef’s alone to take", () => {
    bench.canEdit = false;
    page(<Files />);
    expect(screen.queryByRole("textbox")).toBeNull();
    expect(read(document.body)).toMatch(/only the pastry chef/i);
  });
});
