import { expect, test, vi } from "vitest";

import { Hands } from "@/screens/rehearse/hands";

const heat = (value: number) => ({ id: `h${value}`, at_s: 0, kind: "heat" as const, value });

/** A server that answers when it is told to. */
function slow() {
  const got: number[][] = [];
  const waiting: { yes: () => void; no: () => void }[] = [];
  const deliver = (acts: { value?: number }[]) =>
    new Promise<number>((resolve, reject) => {
      const values = acts.map((act) => act.value ?? 0);
      got.push(values);
      waiting.push({
        yes: () => resolve(values.at(-1) ?? 0),
        no: () => reject(new Error("away")),
      });
    });
  const answer = () => waiting.shift()?.yes();
  const refuse = () => waiting.shift()?.no();
  return { got, answer, refuse, deliver };
}

test("a knob turned fast arrives in order, and only where it ended is heard", async () => {
  const server = slow();
  const heard = vi.fn();
  const hands = new Hands(server.deliver, heard, vi.fn());
  for (const value of [1, 2, 3]) void hands.did(heat(value));
  expect(server.got).toEqual([[1]]);
  server.answer();
  await vi.waitFor(() => expect(server.got).toEqual([[1], [2, 3]]));
  expect(heard).not.toHaveBeenCalled();
  server.answer();
  await vi.waitFor(() => expect(heard.mock.calls).toEqual([[3]]));
});

test("what did not arrive is said, and what was done after it still goes", async () => {
  const server = slow();
  const heard = vi.fn();
  const failed = vi.fn();
  const hands = new Hands(server.deliver, heard, failed);
  void hands.did(heat(1));
  void hands.did(heat(2));
  server.refuse();
  await vi.waitFor(() => expect(server.got).toEqual([[1], [2]]));
  expect(failed.mock.calls).toEqual([[new Error("away"), true]]);
  server.answer();
  await vi.waitFor(() => expect(heard).toHaveBeenCalledWith(2));
});
