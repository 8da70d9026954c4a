// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import type { ReactElement } from "react";
import { afterEach, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { Invites } from "@/screens/account/invites";
import { Photos } from "@/screens/batch/photos";
import { Kept } from "@/screens/day/kept";
import Rehearse from "@/screens/rehearse/rehearse";
import { AWAY, field, page, press, served, type } from "@/test/page";

vi.mock("@/bench", () => ({
  useBench: () => ({ kid: "k", canEdit: true, canCook: true, units: "metric" }),
}));
afterEach(cleanup);

const ASK = { date: "2026-11-28", services: [{ at: "18:00", items: [{}] }] };
vi.mock("@/screens/day/ask", () => ({ bodyOf: () => ({}), askOf: () => ({}) }));
const EXERCISE = {
  key: "anglaise",
  name: "Anglaise",
  task: "Cook it.",
  level: 1,
  tried: 0,
  done: 0,
};
const PICTURE = new File(["cut"], "cut.jpg", { type: "image/jpeg", lastModified: 1 });

interface Case {
  thing: string;
  part: ReactElement;
  path: string;
  send: () => void;
  answer: unknown;
  idOf: (sent: { params: Record<string, string>; body: unknown }) => string | undefined;
}
const inBody: Case["idOf"] = (s) => (s.body as { id: string }).id;
const CASES: Case[] = [
  {
    thing: "an invitation",
    part: <Invites />,
    path: "/api/k/{kid}/invites",
    send: () => {
      type(/their name/i, "Odo");
      press(/make a link/i);
    },
    answer: { id: "i", name: "Odo", role: "cook", secret: "s" },
    idOf: inBody,
  },
  {
    thing: "a picture",
    part: <Photos batch={{ id: "b", photos: [] } as unknown as Shapes["BatchOut"]} />,
    path: "/api/k/{kid}/batches/{batch_id}/photos/{photo_id}",
    send: () => fireEvent.change(field(/a picture of/i), { target: { files: [PICTURE] } }),
    answer: [],
    idOf: (s) => s.params["photo_id"],
  },
  {
    thing: "a usual day",
    part: <Kept ask={ASK as never} change={() => undefined} />,
    path: "/api/k/{kid}/day/usual/{usual_id}",
    send: () => {
      if (!screen.queryByRole("textbox")) press(/write this day down/i);
      fireEvent.change(screen.getByRole("textbox"), { target: { value: "Market day" } });
      fireEvent.submit(screen.getByRole("textbox"));
    },
    answer: [],
    idOf: (s) => s.params["usual_id"],
  },
  {
    thing: "a rehearsal",
    part: <Rehearse />,
    path: "/api/k/{kid}/rehearsals",
    send: () => press(/begin/i),
    answer: { id: "r", exercise: "anglaise" },
    idOf: inBody,
  },
];

it.each(CASES)(
  "$thing sent again after a lost answer is still one, the next is another",
  async (c) => {
    let away = true;
    const sent = served((s) => {
      if (s.path === c.path && s.method !== "GET") return away ? AWAY : c.answer;
      return s.path === "/api/k/{kid}/rehearsals" ? [EXERCISE] : [];
    });
    const tries = () => sent.filter((s) => s.path === c.path && s.method !== "GET");
    page(c.part);
    await screen.findAllByRole("button");
    const send = async (n: number) => {
      c.send();
      await waitFor(() => expect(tries()).toHaveLength(n));
      await act(() => new Promise((done) => setTimeout(done))); // what was answered is shown
    };
    await send(1);
    await send(2);
    away = false;
    await send(3);
    await send(4);
    const [first, second, third, fourth] = tries().map(c.idOf);
    expect(first).toBeTruthy();
    expect([second, third]).toEqual([first, first]);
    expect(fourth).not.toBe(first);
  },
);
