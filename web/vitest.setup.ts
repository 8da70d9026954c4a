import { configure } from "@testing-library/dom";
import fc from "fast-check";

// What is waited for comes when it comes: one second is not enough on a machine under load.
configure({ asyncUtilTimeout: 50_000 });

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
