// @vitest-environment jsdom
import { expect, it, vi } from "vitest";

vi.stubGlobal("matchMedia", () => ({ matches: false }));
const { cache } = await import("@/api/queries");
const { ApiError } = await import("@/api/client");

const { retry, retryDelay } = cache.getDefaultOptions().queries as {
  retry: (count: number, error: unknown) => boolean;
  retryDelay: (count: number) => number;
};
const status = (code: number) => new ApiError(code, "no", null, null);

it("asks again what passes by itself, and never what was refused", () => {
  expect([0, 502, 503].map((code) => retry(3, status(code)))).toEqual([true, true, true]);
  expect([400, 403, 404, 422].map((code) => retry(0, status(code)))).toEqual([false, false, false, false]); // prettier-ignore
  expect([retry(0, new Error("of ours")), retry(60, status(0))]).toEqual([false, false]);
});

it("waits twice as long each time, four seconds at most", () => {
  expect([0, 1, 2, 3, 4, 20].map(retryDelay)).toEqual([300, 600, 1200, 2400, 4000, 4000]);
});
