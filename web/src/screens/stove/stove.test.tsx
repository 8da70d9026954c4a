// @vitest-environment jsdom
import { cleanup } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";

import { ApiError } from "@/api/client";
import Stove from "@/screens/stove/stove";
import { field, has, page, read } from "@/test/page";

const AT = {
  dessert: {},
  version: { number: 1 },
  part: { id: "p", kind: "caramel", name: "Caramel" },
};
const CONTENT = { target_c: 0, ring_id: "r1", heat_setting_pct: 80, cook_setting_pct: 45 };
let plan: { data?: unknown; error?: unknown };

vi.mock("@/bench", () => ({
  useBench: () => ({ kid: "k", units: "metric", canEdit: true, kitchen: { rings: [] } }),
}));
vi.mock("@/screens/egg-grades", () => ({ useEggGrades: () => [] }));
vi.mock("@/api/queries", () => ({ usePlan: () => plan }));
vi.mock("@/screens/formula/saving", () => ({ ConflictDialog: () => null }));
vi.mock("@/screens/stove/on-paper", () => ({
  Finishing: () => null, Places: () => null, Signs: () => null, Steps: () => null,
})); // prettier-ignore
vi.mock("@/screens/stove/work-facts", () => ({ WorkFacts: () => null }));
vi.mock("@/screens/place", () => ({
  CUSTARDS: ({ kind }: { kind: string }) => kind === "filling",
  Place: ({ show }: { show: (at: unknown) => unknown }) => show(AT),
  PlaceHead: () => null,
  usePlace: () => ({
    draft: { state: "saved", change: vi.fn() },
    content: CONTENT,
    change: vi.fn(),
    today: {},
  }),
}));
afterEach(cleanup);

const CARAMEL = {
  guide: "caramel", aim: { usual_c: 172, low_c: 160, high_c: 190 }, ladder: null,
  heat: null, cook: { points: [[0, 20], [60, 172]] }, cook_from_c: 20, temper_s: 0, ring: "Gas",
  steps: [], warnings: [], learned: [], boil_c: 100, thickens_c: null, scenes: [],
}; // prettier-ignore

it("asks no school of tempering for a caramel that is not planned yet or cannot be", () => {
  plan = {};
  const { again } = page(<Stove />);
  expect([has(/colour at/i), has(/school of tempering/i)]).toEqual([false, false]);
  plan = { data: CARAMEL };
  again(<Stove />);
  expect(field(/colour at/i).value).toBe("172");
  plan = { error: new ApiError(422, "Too hot for sugar.", "target_c", null) };
  again(<Stove />);
  expect(field(/colour at/i).value).toBe("172");
  expect(read(document.querySelector("[role=alert]"))).toBe("Too hot for sugar.");
  expect(has(/school of tempering/i)).toBe(false);
});
