import { defineConfig } from "vitest/config";

import { catalogues } from "./say.plugin.ts";

export default defineConfig({
  plugins: [catalogues()],
  resolve: { alias: { "@": new URL("./src", import.meta.url).pathname } },
  test: {
    include: ["src/**/*.test.ts", "src/**/*.test.tsx"],
    environment: "node",
    pool: "vmThreads", // each file still by itself, without a process and its libraries for each
    setupFiles: ["./vitest.setup.ts"],
    testTimeout: 60_000, // a machine under load is no failure
  },
});
