import { configure } from "@testing-library/dom";

// What is waited for comes when it comes: one second is not enough on a machine under load.
configure({ asyncUtilTimeout: 50_000 });

// What the simulated page lacks and the widgets ask for.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
globalThis.matchMedia ??= (() => ({ matches: false })) as unknown as typeof matchMedia;
