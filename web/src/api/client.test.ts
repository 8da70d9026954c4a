// @vitest-environment jsdom
import { afterEach, expect, it, vi } from "vitest";

import { ApiError, client, must, onSignedOut, saidAt } from "@/api/client";

const response = (status: number, url = "http://kitchen/api/k/1") =>
  ({ ok: status < 400, status, url }) as Response;
const refused = (status: number, error: unknown, url?: string) =>
  must(Promise.resolve({ error, response: response(status, url) }));
afterEach(() => vi.unstubAllGlobals());

it("gives what was answered, or the server's own sentence at its field", async () => {
  await expect(must(Promise.resolve({ data: 7, response: response(200) }))).resolves.toBe(7);
  const said = { message: "At least 1.", field: "count" };
  const error = await refused(422, said).catch((e: unknown) => e);
  expect(error).toMatchObject({ status: 422, message: "At least 1.", field: "count", body: said });
  expect(saidAt(error, "count")).toBe("At least 1.");
  expect(saidAt(error, "fill")).toBeNull();
  expect(saidAt(new Error("At least 1."), "count")).toBeNull();
});

it("says in words that the server is away, also when it answers nonsense", async () => {
  const away = await must(Promise.reject(new TypeError("Failed to fetch"))).catch(
    (e: unknown) => e,
  );
  expect(away).toMatchObject({ status: 0, field: null });
  expect((away as ApiError).message).toContain("not answering");
  const proxy = await refused(502, undefined).catch((e: unknown) => e);
  expect((proxy as ApiError).message).toContain("not answering");
});

it("takes an empty answer for none", async () => {
  const empty = must(Promise.resolve({ response: response(200) }));
  await expect(empty).rejects.toMatchObject({ status: 200 });
});

it("leaves a question that was taken back what it is", async () => {
  const taken = new DOMException("taken back", "AbortError");
  await expect(must(Promise.reject(taken))).rejects.toBe(taken);
});

it.each([
  [0, true],
  [429, true],
  [500, true],
  [503, true],
  [401, false],
  [409, false],
  [422, false],
])("knows whether a %i passes by itself: %s", (status, passes) => {
  expect(new ApiError(status, "", null, null).passes).toBe(passes);
});

it("tells those who listen that the session ended, but not who is just signing in", async () => {
  const told = vi.fn();
  const quiet = onSignedOut(told);
  await refused(401, {}, "http://kitchen/api/session").catch(() => undefined);
  await refused(403, {}).catch(() => undefined);
  expect(told).not.toHaveBeenCalled();
  await refused(401, {}).catch(() => undefined);
  expect(told).toHaveBeenCalledTimes(1);
  quiet();
  await refused(401, {}).catch(() => undefined);
  expect(told).toHaveBeenCalledTimes(1);
});

it("sends the token as the cookie has it at that moment, and none with a question", async () => {
  const sent: Request[] = [];
  const fetch = (request: Request) => {
    sent.push(request);
    return Promise.resolve(Response.json({}));
  };
  const ask = { baseUrl: "http://kitchen/", fetch };
  document.cookie = "csrftoken=before";
  await client.DELETE("/api/session", ask);
  document.cookie = "csrftoken=after";
  await client.DELETE("/api/session", ask);
  await client.GET("/api/session", ask);
  expect(sent.map((r) => r.headers.get("X-CSRFToken"))).toEqual(["before", "after", null]);
});
