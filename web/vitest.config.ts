import { defineConfig } from "vitest/config";

import { catalogues } from "./say.plugin.ts";
import { PATIENCE_MS } from "./vitest.patience.ts";

export default defineConfig({
  plugins: [catalogues()],
  resolve: { alias: { "@": new URL("./src", import.meta.url).pathname } },
  test: {
    include: ["src/**/*.test.ts", "src/**/*.test.tsx"],
    environment: "node",
    pool: "vmThreads", // each file still by itself, without a process and its libraries for each
    setupFiles: ["./vitest.setup.ts"],
    testTimeout: PATIENCE_MS,
    hookTimeout: PATIENCE_MS,
    teardownTimeout: PATIENCE_MS,
  },
});
