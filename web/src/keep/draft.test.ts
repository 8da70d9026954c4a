import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { client, type Shapes } from "@/api/client";
import { Draft } from "@/keep/draft";

type Version = Shapes["VersionOut"];

const kept = new Map<string, string>();
vi.stubGlobal("localStorage", {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
});

let answer: (body: { content: { lines_text: string } }) => { status: number; body: unknown };
const calls: { method: string; body: { content: { lines_text: string }; revision?: number } }[] =
  [];
for (const method of ["PUT", "POST"] as const) {
  vi.spyOn(client, method).mockImplementation((async (_path: string, init: { body: never }) => {
    calls.push({ method, body: init.body });
    const { status, body } = answer(init.body);
    if (status === 0) throw new TypeError("away");
    const response = { ok: status === 200, status, url: "http://kitchen/api/k" };
    return status === 200 ? { data: body, response } : { error: body, response };
  }) as never);
}

const version = (part: Partial<Version> = {}): Version =>
  ({ id: "v1", part_id: "p", number: 1, revision: 1, cooked: false, saved_by: null, batches: 0,
     lines_text: "1 l milk", note: "", ...part }) as Version; // prettier-ignore
const saved = (part: Partial<Version>) => ({ status: 200, body: version(part) });
const problem = (status: number, field: string | null = null) => ({
  status,
  body: { message: `no: ${status}`, field },
});

describe("a formula being written", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    kept.clear();
    calls.length = 0;
    answer = ({ content }) => saved({ lines_text: content.lines_text, revision: 2 });
  });
  afterEach(() => vi.useRealTimers());
  const draftOf = (v = version(), readOnly = false) => new Draft("k", v, readOnly, () => undefined);

  it("keeps every keystroke in the browser at once and saves a moment after the last", async () => {
    const draft = draftOf();
    draft.change({ lines_text: "2 l milk" });
    expect(JSON.parse([...kept.values()][0] ?? "").content.lines_text).toBe("2 l milk");
    draft.change({ lines_text: "3 l milk" });
    await vi.advanceTimersByTimeAsync(499);
    expect(calls).toHaveLength(0);
    await vi.advanceTimersByTimeAsync(10);
    expect(calls.map((c) => c.body.content.lines_text)).toEqual(["3 l milk"]);
    expect([draft.state, kept.size]).toEqual(["saved", 0]);
  });

  it("is there again after a closed lid, and saved then", async () => {
    draftOf().change({ lines_text: "2 l milk" });
    const again = draftOf();
    expect([again.content.lines_text, again.state]).toEqual(["2 l milk", "kept"]);
    again.resume();
    await vi.advanceTimersByTimeAsync(60);
    expect(again.state).toBe("saved");
  });

  it("tries again by itself while the server is away, and loses nothing", async () => {
    answer = () => problem(503);
    const draft = draftOf();
    draft.change({ lines_text: "2 l milk" });
    await vi.advanceTimersByTimeAsync(600);
    expect([draft.state, draft.message]).toEqual(["kept", "no: 503"]);
    answer = ({ content }) => saved({ lines_text: content.lines_text });
    await vi.advanceTimersByTimeAsync(1_600);
    expect([draft.state, draft.message]).toEqual(["saved", null]);
  });

  it("says what is wrong at its field and does not try that again", async () => {
    answer = () => problem(422, "content.ring_id");
    const draft = draftOf();
    draft.change({ lines_text: "x" });
    await vi.advanceTimersByTimeAsync(10_000);
    expect([draft.state, draft.field, calls.length]).toEqual(["refused", "ring_id", 1]);
    expect(kept.size).toBe(1);
  });

  it("makes the next version of one that has been cooked, with the same id at every try", async () => {
    answer = () => problem(0);
    const draft = draftOf(version({ cooked: true }));
    draft.change({ lines_text: "2 l milk" });
    await vi.advanceTimersByTimeAsync(2_100);
    const ids = calls.map((c) => (c.body as unknown as { id: string }).id);
    expect(calls.every((c) => c.method === "POST") && ids.length > 1).toBe(true);
    expect(new Set(ids).size).toBe(1);
  });

  it("keeps both texts of two who wrote at once and goes on from the one that is chosen", async () => {
    const theirs = version({ lines_text: "theirs", revision: 7 });
    answer = () => ({ status: 409, body: { message: "", mine: {}, theirs } });
    const draft = draftOf();
    draft.change({ lines_text: "mine" });
    await vi.advanceTimersByTimeAsync(600);
    expect(draft.state).toBe("conflict");
    answer = ({ content }) => saved({ lines_text: content.lines_text, revision: 8 });
    draft.keepMine();
    await vi.advanceTimersByTimeAsync(10);
    expect(calls.at(-1)?.body).toMatchObject({ revision: 7, content: { lines_text: "mine" } });
  });

  it("takes back a change the tool made, as a whole, and nothing typed since", () => {
    const draft = draftOf();
    draft.put({ lines_text: "a" });
    draft.amend({ lines_text: "b" });
    expect(draft.undoIsNext).toBe(true);
    draft.change({ lines_text: "typed" });
    expect([draft.canUndo, draft.undoIsNext]).toEqual([true, false]);
    draft.undo();
    expect([draft.content.lines_text, draft.canUndo]).toEqual(["1 l milk", false]);
  });

  it("changes nothing for a reader", async () => {
    const draft = draftOf(version(), true);
    draft.change({ lines_text: "x" });
    await vi.advanceTimersByTimeAsync(1_000);
    expect([draft.content.lines_text, calls.length]).toEqual(["1 l milk", 0]);
  });
});
