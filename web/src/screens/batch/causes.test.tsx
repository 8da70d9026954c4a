// @vitest-environment jsdom
import { cleanup, screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { Causes } from "@/screens/batch/causes";
import { marksOf } from "@/test/drawn";
import { page, read, served } from "@/test/page";

vi.mock("@/bench", () => ({ useBench: () => ({ kid: "k" }) }));
afterEach(cleanup);

type Why = Shapes["ExplainOut"];
const cause = (words: string, probability: number) => ({
  fault: "grainy", cause: words, words, probability, of: "grains", for: ["it reached 88"],
  against: [], mend: "Stop sooner", ask: "was the rim hotter?",
}); // prettier-ignore
const NONE: Why = { causes: [], happened: [], ruled_out: [], change: [] };
const shown = async (why: Partial<Why>, faults = ["grainy"]) => {
  const batch = { id: "b", verdict: faults.length ? { faults, revision: 1 } : null } as never;
  served(() => ({ ...NONE, ...why }));
  const view = page(<Causes batch={batch} faultName={(key) => `the ${key}`} />);
  await waitFor(() => expect(view.store.isFetching()).toBe(0));
  return view.container;
};

describe("why a batch came out so", () => {
  it("names the likeliest causes first, each with its share drawn and in per cent", async () => {
    const page = await shown({
      causes: [cause("overcooked", 0.62), cause("too hot", 0.2)] as never,
    });
    expect(read(page)).toMatch(/Why.*the grainy.*overcooked.*62 %.*too hot.*20 %/s);
    const [full, share] = marksOf(page, "li svg rect");
    expect((share?.right ?? 0) - 0.5).toBeCloseTo(0.62 * ((full?.right ?? 0) - 0.5), 5);
  });

  it("shows no more than four, and how to mend only what is not far-fetched", async () => {
    const causes = [0.5, 0.2, 0.15, 0.1, 0.05].map((p, i) => ({
      ...cause(`cause ${i}`, p),
      mend: `Mend ${i}`,
    })) as never;
    const text = read(await shown({ causes }));
    expect(text).toContain("cause 3");
    expect(text).not.toContain("cause 4");
    expect(text.match(/Mend \d/g)).toEqual(["Mend 0", "Mend 1"]);
  });

  it("keeps still where there is nothing to tell", async () => {
    const happened = (weight: number) => [{ code: "peak", words: "hottest 83", weight }] as never;
    expect((await shown({}, [])).textContent).toBe("");
    cleanup();
    expect((await shown({ happened: happened(0.39) }, [])).textContent).toBe("");
    cleanup();
    const told = await shown({ happened: happened(0.4) }, []);
    expect(read(told)).toContain("hottest 83");
    expect(told.querySelector("li")?.className).toContain("border-burnt");
    cleanup();
    expect(read(await shown({}))).toMatch(/no cause/i);
  });

  it("shows the next version’s lines where a change has some, and what it ruled out", async () => {
    const change = [{ lines: [] }, { lines: ["500 g milk", "4 yolks"] }] as never;
    await shown({
      causes: [cause("overcooked", 0.6)] as never,
      change,
      ruled_out: ["too little starch"],
    });
    expect(screen.getByText(/500 g milk/).textContent).toBe("500 g milk\n4 yolks");
    expect(read(document.body)).toContain("too little starch");
  });
});
