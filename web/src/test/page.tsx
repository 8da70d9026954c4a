import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen } from "@testing-library/react";
import { useLayoutEffect, type ReactElement } from "react";
import { MemoryRouter, Route, Routes, useLocation } from "react-router";
import { vi } from "vitest";

import { client } from "@/api/client";

/** What a page asked of its server. */
export interface Sent {
  method: string;
  path: string;
  params: Record<string, string>;
  query: Record<string, unknown>;
  body: unknown;
}

/** An answer that says no: the server's status and its own words. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly body: { message?: string; field?: string | null } = {},
  ) {}
}

/** Nobody answers. */
export const AWAY = Symbol("away");

type Init = {
  params?: { path?: Record<string, string>; query?: Record<string, unknown> };
  body?: unknown;
};

/**
 * Stand between the page and its server: what is asked is kept in the order it was, what `answer`
 * gives is the body, a Refusal or nobody.
 */
export function served(answer: (sent: Sent) => unknown): Sent[] {
  const sent: Sent[] = [];
  for (const method of ["GET", "PUT", "POST", "PATCH", "DELETE"] as const)
    vi.spyOn(client, method).mockImplementation((async (path: string, init: Init = {}) => {
      const { path: params = {}, query = {} } = init.params ?? {};
      const asked = { method, path, params, query, body: init.body };
      sent.push(asked);
      const found = await answer(asked);
      if (found === AWAY) throw new TypeError("no network");
      if (found instanceof Refusal) {
        const response = { ok: false, status: found.status, url: path };
        return { error: found.body, response };
      }
      return { data: found ?? null, response: { ok: true, status: 200, url: path } };
    }) as never);
  return sent;
}

let at = "";
function Whereabouts() {
  const { pathname, search } = useLocation();
  useLayoutEffect(() => {
    at = pathname + search;
  });
  return null;
}
/** The address that the page under test is at. */
export const address = () => at;

/** A page as it stands in the application: with its store of answers, at an address. */
export function page(what: ReactElement, where = "/k/k", route = "*") {
  const store = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const around = (inside: ReactElement) => (
    <QueryClientProvider client={store}>
      <MemoryRouter initialEntries={[where]}>
        <Whereabouts />
        <Routes>
          <Route path={route} element={inside} />
          <Route path="*" element={null} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>
  );
  const view = render(around(what));
  return { ...view, store, again: (next: ReactElement) => view.rerender(around(next)) };
}

/** What is read on it, with ordinary spaces. */
export const read = (el: Element | null | undefined) =>
  (el?.textContent ?? "").replaceAll(/[\u202f\u00a0]/g, " ");

type Name = RegExp | string;
/** What a person does with a form: find a field by its label, type over what is in it, press. */
export const field = (label: Name) => screen.getByLabelText<HTMLInputElement>(label);
export const has = (label: Name) => screen.queryByLabelText(label) !== null;
export const type = (label: Name, value: string) =>
  fireEvent.change(field(label), { target: { value } });
export const press = (name: Name) => fireEvent.click(screen.getByRole("button", { name }));
