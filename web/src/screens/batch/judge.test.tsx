// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";

import { client, type Shapes } from "@/api/client";
import { readStored } from "@/keep/stored";
import { Judge } from "@/screens/batch/judge";

vi.mock("@/bench", () => ({ useBench: () => ({ kid: "k", canCook: true, units: "metric" }) }));
vi.mock("@/api/queries", () => ({
  useCraft: () => ({
    data: {
      faults: [
        { key: "lumps", name: "Lumps", baked: false, stove: true },
        { key: "cracked", name: "Cracked", baked: true, stove: false },
      ],
    },
  }),
}));

const batch = {
  id: "b",
  plan: { guide: "pot", boils_off_g: null },
  findings: [],
  predicted_class: null,
  verdict: null,
} as unknown as Shapes["BatchOut"];
const puts: { revision: number; note: string }[] = [];
let answer: (answered: unknown) => void;

beforeEach(() => {
  puts.length = 0;
  localStorage.clear();
  vi.spyOn(client, "PUT").mockImplementation(((_: string, init: { body: (typeof puts)[0] }) => {
    puts.push(init.body);
    return new Promise((done) => (answer = done));
  }) as never);
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Judge batch={batch} />
    </QueryClientProvider>,
  );
});
afterEach(cleanup);

const kept = () => readStored<{ note: string }>("crumb.verdict.b");
const note = (text: string) =>
  fireEvent.change(screen.getByRole("textbox", { name: /note/i }), { target: { value: text } });
const button = () => screen.getByRole<HTMLButtonElement>("button", { name: /book|verdict/i });
const save = () => fireEvent.click(button());

it("offers the faults that a pot can have, and not those of an oven", () => {
  expect(screen.getByLabelText("Lumps")).toBeTruthy();
  expect(screen.queryByLabelText("Cracked")).toBeNull();
});

it("keeps what is typed while the verdict before is on its way", async () => {
  fireEvent.click(screen.getByRole("radio", { name: /pipe/i }));
  note("loose");
  save();
  await waitFor(() => expect(puts).toHaveLength(1));
  note("loose in the middle");
  answer({ data: batch, response: { ok: true, status: 200, url: "" } });
  await waitFor(() => expect(button().disabled).toBe(false));
  expect(kept()?.note).toBe("loose in the middle");
  save();
  await waitFor(() => expect(puts).toHaveLength(2));
  expect(puts[1]?.note).toBe("loose in the middle");
  answer({ data: batch, response: { ok: true, status: 200, url: "" } });
  await waitFor(() => expect(kept()).toBeNull());
});
