// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { client, type Shapes } from "@/api/client";
import { DescribeDialog } from "@/screens/formula/describe";

const ALLERGENS = [
  { key: "gluten", name: "gluten" },
  { key: "nuts", name: "nuts" },
];
vi.mock("@/bench", () => ({ useBench: () => ({ kid: "k" }) }));
vi.mock("@/api/queries", () => ({ useCraft: () => ({ data: { allergens: ALLERGENS } }) }));

let answer: { status: number; body: unknown };
const puts: { params: { path: { item_id: string } }; body: Shapes["PantryIn"] }[] = [];
vi.spyOn(client, "PUT").mockImplementation(((_: string, init: (typeof puts)[0]) => {
  puts.push(init);
  const { status, body } = answer;
  const response = { ok: status === 200, status, url: "" };
  return Promise.resolve(status === 200 ? { data: body, response } : { error: body, response });
}) as never);

const RYE = {
  id: "rye", name: "Rye praline", category: "nut", fat_pct: 30, sugars_pct: 45.5, protein_pct: 0,
  starch_pct: 2, water_pct: 0, g_per_us_cup: null, g_per_piece: 4, allergens: [ALLERGENS[1]],
} as unknown as Shapes["PantryOut"]; // prettier-ignore
const closed = vi.fn();
const opened = (was?: Shapes["PantryOut"]) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <DescribeDialog name={was ? "" : "malted rye"} was={was} onClose={closed} />
    </QueryClientProvider>,
  );
const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
const keep = () => fireEvent.click(screen.getByRole("button", { name: /pantry|Keep it so/ }));

describe("an ingredient described from its label", () => {
  beforeEach(() => {
    answer = { status: 200, body: {} };
    puts.length = 0;
    closed.mockClear();
  });
  afterEach(cleanup);

  it("is sent as the label says it: commas are points, what is empty is nothing", async () => {
    opened();
    type("Fat, g", "2,5");
    type("Protein, g", "8");
    fireEvent.click(screen.getByRole("checkbox", { name: "nuts" }));
    fireEvent.click(screen.getByRole("checkbox", { name: "gluten" }));
    fireEvent.click(screen.getByRole("checkbox", { name: "nuts" }));
    keep();
    await waitFor(() => expect(closed).toHaveBeenCalled());
    expect(puts[0]?.body).toEqual({
      name: "malted rye", category: "own", fat_pct: 2.5, sugars_pct: 0, protein_pct: 8,
      starch_pct: 0, water_pct: null, g_per_us_cup: null, g_per_piece: null, allergens: ["gluten"],
    }); // prettier-ignore
  });

  it("is the same ingredient when it is corrected, and a nought is not nothing said", async () => {
    opened(RYE);
    type("Starch, g", "3");
    keep();
    await waitFor(() => expect(closed).toHaveBeenCalled());
    expect(puts[0]?.params.path.item_id).toBe("rye");
    expect(puts[0]?.body).toEqual({
      name: "Rye praline", category: "nut", fat_pct: 30, sugars_pct: 45.5, protein_pct: 0,
      starch_pct: 3, water_pct: 0, g_per_us_cup: null, g_per_piece: 4, allergens: ["nuts"],
    }); // prettier-ignore
  });

  it("says nothing of allergens until somebody does, and then none is one of the answers", async () => {
    opened();
    keep();
    await waitFor(() => expect(puts[0]?.body.allergens).toBe(null));
    fireEvent.click(screen.getByRole("checkbox", { name: "nuts" }));
    fireEvent.click(screen.getByRole("checkbox", { name: "nuts" }));
    keep();
    await waitFor(() => expect(puts[1]?.body.allergens).toBe(null));
    fireEvent.click(screen.getByRole("checkbox", { name: "nuts" }));
    fireEvent.click(screen.getByRole("checkbox", { name: "none of these" }));
    keep();
    await waitFor(() => expect(puts[2]?.body.allergens).toEqual([]));
  });

  it("is not sent with what is no number, or without a name", () => {
    opened();
    const button = screen.getByRole<HTMLButtonElement>("button", { name: /pantry/ });
    type("Fat, g", "a lot");
    expect(button.disabled).toBe(true);
    type("Fat, g", "20");
    type("Name as you write it", " x ");
    expect(button.disabled).toBe(true);
    type("Name as you write it", "xylitol");
    expect(button.disabled).toBe(false);
  });

  it.each([
    ["fat_pct", "Fat, g"],
    ["name", "Name as you write it"],
  ])("stays open with what was typed when %s is refused, and says it there", async (field, at) => {
    answer = { status: 422, body: { message: "It cannot be so.", field } };
    opened();
    type("Fat, g", "90");
    keep();
    const said = await screen.findByText("It cannot be so.");
    const input = screen.getByLabelText<HTMLInputElement>(at);
    expect(input.getAttribute("aria-describedby")).toContain(said.id);
    expect(screen.getByLabelText<HTMLInputElement>("Fat, g").value).toBe("90");
    expect(closed).not.toHaveBeenCalled();
  });
});
