import "@/index.css";

import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";

import { cache } from "@/api/queries";
import { App } from "@/app";
import { applyLight } from "@/keep/light";
import { Guard } from "@/ui/guard";

applyLight();
if (import.meta.env.PROD && "serviceWorker" in navigator) {
  // A tablet without one (plain HTTP from another machine) only needs the server to open.
  navigator.serviceWorker.register("/sw.js", { scope: "/" }).catch(() => undefined);
}
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <Guard place="everywhere">
        <QueryClientProvider client={cache}>
          <BrowserRouter>
            <App />
          </BrowserRouter>
        </QueryClientProvider>
      </Guard>
    </StrictMode>,
  );
}
