import { defineConfig } from "vitest/config";

import { catalogues } from "./say.plugin.ts";

export default defineConfig({
  plugins: [catalogues()],
  resolve: { alias: { "@": new URL("./src", import.meta.url).pathname } },
  test: {
    include: ["src/**/*.test.ts", "src/**/*.test.tsx"],
    environment: "node",
    setupFiles: ["./vitest.setup.ts"],
    testTimeout: 60_000, // a machine under load is no failure
  },
});
