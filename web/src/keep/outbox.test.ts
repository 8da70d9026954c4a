import "fake-indexeddb/auto";

import { beforeEach, describe, expect, it, vi } from "vitest";

import { client } from "@/api/client";
import { hearServerClock } from "@/keep/clock";
import { keepMoves, waitingMoves, type CookEvent } from "@/keep/durable";
import { Outbox } from "@/keep/outbox";

interface Sent {
  events: CookEvent[];
}
type Answer = (sent: Sent) => { status: number; body: unknown };

let answers: Answer;
let posts: CookEvent[][] = [];

const live = (refused: { id: string; message: string }[] = []) => ({
  status: 200,
  body: { server_now: new Date().toISOString(), refused },
});
const problem = (status: number) => ({ status, body: { message: `no: ${status}`, field: null } });

vi.spyOn(client, "POST").mockImplementation((async (_path: string, init: { body: Sent }) => {
  posts.push(init.body.events);
  const { status, body } = answers(init.body);
  if (status === 0) throw new TypeError("Failed to fetch");
  const response = { ok: status === 200, status, url: "http://kitchen/api/events" };
  return status === 200 ? { data: body, response } : { error: body, response };
}) as never);

let number = 0;
const settled = async (box: Outbox) => {
  for (let i = 0; i < 200 && box.snapshot().length; i += 1) {
    await new Promise((done) => setTimeout(done, 0));
  }
};

describe("an outbox", () => {
  let batch: string;
  beforeEach(() => {
    vi.useRealTimers();
    posts = [];
    answers = () => live();
    number += 1;
    batch = `batch-${number}`;
  });

  it("has a move on the disk when adding it is done, and forgets it when the server has it", async () => {
    answers = () => problem(0);
    const box = new Outbox("k", batch);
    await box.add("step", { step: "heat" });
    const kept = await waitingMoves(batch);
    expect(kept.map((move) => move.event.step)).toEqual(["heat"]);
    answers = () => live();
    await box.flush();
    await settled(box);
    expect(await waitingMoves(batch)).toEqual([]);
  });

  it("asks twice as seldom after each silence, four seconds at most", async () => {
    answers = () => problem(503);
    const box = new Outbox("k", batch);
    await box.ready;
    const timer = vi.spyOn(globalThis, "setTimeout");
    await box.add("step", { step: "heat" });
    for (let i = 0; i < 4; i += 1) await box.flush();
    const waits = timer.mock.calls.map(([, ms]) => ms ?? 0).filter((ms) => ms >= 500);
    timer.mockRestore();
    expect(waits.slice(0, 4)).toEqual([600, 1200, 2400, 4000]);
    answers = () => live();
    await box.flush();
  });

  it("takes up what an earlier page left, in the order it was made, each with its own id", async () => {
    answers = () => problem(503);
    const first = new Outbox("k", batch);
    for (const step of ["heat", "temper", "cook"]) await first.add("step", { step });
    answers = () => live();
    posts = [];
    const second = new Outbox("k", batch);
    await second.ready;
    await settled(second);
    expect(posts[0]?.map((event) => event.step)).toEqual(["heat", "temper", "cook"]);
    expect(new Set(posts[0]?.map((event) => event.id)).size).toBe(3);
  });

  it("stamps no move before the one it follows, also when an answer sets the clock back", async () => {
    answers = () => problem(0);
    const first = new Outbox("k", batch);
    hearServerClock(new Date(Date.now() + 9_000).toISOString());
    await first.add("step", { step: "heat" });
    hearServerClock(new Date().toISOString());
    await first.add("step", { step: "temper" });
    const second = new Outbox("k", batch); // the page was loaded again
    await second.ready;
    await second.add("step", { step: "cook" });
    const stamps = (await waitingMoves(batch)).map((move) => Date.parse(move.event.at));
    expect(stamps).toEqual([...new Set(stamps)].sort((a, b) => a - b));
    expect(stamps).toHaveLength(3);
  });

  it("drops nothing behind an event that is refused", async () => {
    answers = () => problem(0);
    const box = new Outbox("k", batch);
    for (const step of ["heat", "flambé", "cook"]) await box.add("step", { step });
    const bad = box.snapshot()[1]?.id ?? "";
    posts = [];
    await box.flush(); // what is on its way comes to its end first
    posts = [];
    answers = () => live([{ id: bad, message: "There is no step." }]);
    await box.flush();
    await settled(box);
    expect(posts.flat().map((event) => event.step)).toEqual(["heat", "flambé", "cook"]);
    expect(box.refused).toBe("There is no step.");
  });

  it("sends each alone when all together are refused, and drops only what is wrong", async () => {
    answers = () => problem(0);
    const box = new Outbox("k", batch);
    for (const step of ["heat", "flambé", "cook"]) await box.add("step", { step });
    await box.flush();
    const taken: string[] = [];
    answers = ({ events }) => {
      if (events.some((event) => event.step === "flambé")) return problem(422);
      taken.push(...events.map((event) => event.step));
      return live();
    };
    await box.flush();
    await settled(box);
    expect(taken).toEqual(["heat", "cook"]);
    expect(box.snapshot()).toEqual([]);
    expect(await waitingMoves(batch)).toEqual([]);
  });

  it("keeps everything while signed out, away or slowed down", async () => {
    for (const status of [401, 429, 500, 503, 0]) {
      answers = () => problem(status);
      const box = new Outbox("k", `${batch}-${status}`);
      await box.add("pause");
      await box.flush();
      expect(box.snapshot()).toHaveLength(1);
      expect(box.refused).toBeNull();
    }
  });

  it("keeps moves made in the same moment in their order", async () => {
    const move = (place: number) => ({
      id: `${batch}-${place}`,
      kid: "k",
      batchId: batch,
      place,
      event: { id: `${batch}-${place}`, kind: "pause", step: "", at: "", value: null } as CookEvent,
    });
    await keepMoves([move(3), move(1), move(2)]);
    expect((await waitingMoves(batch)).map((m) => m.place)).toEqual([1, 2, 3]);
  });
});
