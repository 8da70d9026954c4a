import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

import { catalogues } from "./say.plugin.ts";

export default defineConfig({
  base: "/static/",
  plugins: [react(), tailwindcss(), catalogues()],
  resolve: { alias: { "@": new URL("./src", import.meta.url).pathname } },
  build: { target: "es2022", assetsInlineLimit: 0 },
  server: { proxy: { "/api": "http://127.0.0.1:8642" } },
});
