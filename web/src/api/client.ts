import createClient from "openapi-fetch";

import type { components, paths } from "@/api/schema";
import { say } from "@/say";

export type Shapes = components["schemas"];

/** A refusal or failure, said in a sentence. `status` 0: the server could not be reached. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly field: string | null,
    readonly body: unknown,
  ) {
    super(message);
  }

  /** Whether trying again later can help: no network, or the server or its store is away. */
  get passes(): boolean {
    return this.status === 0 || this.status === 429 || this.status >= 500;
  }
}

/** What was refused about one field of a form; null when the refusal is about something else. */
export const saidAt = (error: unknown, field: string): string | null =>
  error instanceof ApiError && error.field === field ? error.message : null;

const AWAY = say("api.the_kitchens_server_is_not_answering");

/** The token as the cookie has it now: it changes at sign-in, also while something is waiting. */
const csrf = (): string => /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";

const signedOut = new Set<() => void>();
/** Be told when the session has ended while somebody works. */
export function onSignedOut(listener: () => void): () => void {
  signedOut.add(listener);
  return () => signedOut.delete(listener);
}

export const client = createClient<paths>({ baseUrl: "/", credentials: "same-origin" });
client.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrf());
    return request;
  },
});

interface Outcome<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of a call, or an ApiError with the server's own sentence. */
export async function must<T>(call: Promise<Outcome<T>>): Promise<T> {
  let outcome: Outcome<T>;
  try {
    outcome = await call;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new ApiError(0, AWAY, null, null);
  }
  const { data, error, response } = outcome;
  if (response.ok && data !== undefined) return data;
  const said = (error ?? {}) as { message?: string; field?: string | null };
  if (response.status === 401 && !response.url.endsWith("/api/session")) {
    signedOut.forEach((tell) => tell());
  }
  throw new ApiError(response.status, said.message ?? AWAY, said.field ?? null, error);
}
