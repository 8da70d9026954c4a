import { configure } from "@testing-library/dom";
import fc from "fast-check";

import { PATIENCE_MS } from "./vitest.patience.ts";

// Given up before the test is, so that what was waited for is said.
configure({ asyncUtilTimeout: 0.8 * PATIENCE_MS });

// What the simulated page lacks and the widgets ask for.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
globalThis.matchMedia ??= (() => ({ matches: false })) as unknown as typeof matchMedia;

// The same cases every time: a law that fails by chance is found by who looks for it
// (CRUMB_SEED=… npx vitest run src/figures), not by who happens to run the tests.
fc.configureGlobal({ seed: Number(process.env["CRUMB_SEED"] ?? 2026) });
