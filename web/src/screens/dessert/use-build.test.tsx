// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { client } from "@/api/client";
import { useBuild, type Content } from "@/screens/dessert/use-build";

const STAND = { count: 8 };
const page = (revision: number, count = 8) => ({
  revision,
  content: { stand: { ...STAND, count }, layers: [] },
  found: { of: count },
  problem: null,
});
let server = page(3);
let saved: { status: number; body: unknown };
const puts: { revision: number; content: Content }[] = [];

const ok = (data: unknown) => ({ data, response: { ok: true, status: 200, url: "" } });
vi.spyOn(client, "GET").mockImplementation((() => Promise.resolve(ok(server))) as never);
vi.spyOn(client, "POST").mockImplementation(((_: string, init: { body: Content }) =>
  Promise.resolve(ok({ ...server, content: init.body, found: { of: "tried" } }))) as never);
vi.spyOn(client, "PUT").mockImplementation(((_: string, init: { body: (typeof puts)[0] }) => {
  puts.push(init.body);
  const { status, body } = saved;
  if (status === 200) return Promise.resolve(ok(body));
  return Promise.resolve({ error: body, response: { ok: false, status, url: "" } });
}) as never);

const change = { stand: { count: 12 } } as unknown as Partial<Content>;
function opened() {
  const store = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={store}>{children}</QueryClientProvider>
  );
  return renderHook(() => useBuild("k", "tart"), { wrapper });
}

describe("a build somebody is at", () => {
  beforeEach(() => {
    server = page(3);
    saved = { status: 200, body: page(4, 12) };
    puts.length = 0;
    localStorage.clear();
  });
  afterEach(cleanup);

  it("is what is saved until something is changed, and is tried at once then", async () => {
    const { result } = opened();
    await waitFor(() => expect(result.current.content).toEqual(server.content));
    expect([result.current.dirty, result.current.found]).toEqual([false, { of: 8 }]);
    act(() => result.current.change(change));
    expect(result.current.dirty).toBe(true);
    // Until the answer is there the last one stands.
    expect(result.current.found).toEqual({ of: 8 });
    await waitFor(() => expect(result.current.found).toEqual({ of: "tried" }));
  });

  it("outlives a closed page, and is given up when that is asked for", async () => {
    const first = opened();
    await waitFor(() => expect(first.result.current.content).toBeDefined());
    act(() => first.result.current.change(change));
    first.unmount();
    const again = opened();
    await waitFor(() => expect(again.result.current.saved.data).toBeDefined());
    expect(again.result.current.content).toMatchObject(change);
    act(() => again.result.current.drop());
    expect(again.result.current.content).toEqual(server.content);
    again.unmount();
    expect(opened().result.current.dirty).toBe(false);
  });

  it("goes on where the browser keeps nothing", async () => {
    const full = vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    const { result } = opened();
    await waitFor(() => expect(result.current.content).toBeDefined());
    act(() => result.current.change(change));
    expect(result.current.content).toMatchObject(change);
    full.mockRestore();
  });

  it("is saved on the revision it was read at, and is clean after it", async () => {
    const { result } = opened();
    await waitFor(() => expect(result.current.content).toBeDefined());
    act(() => result.current.change(change));
    act(() => result.current.save());
    await waitFor(() => expect(result.current.dirty).toBe(false));
    expect(puts).toMatchObject([{ revision: 3, content: change }]);
    expect(result.current.content).toMatchObject(change);
  });

  it("keeps what is done while the save before is on its way", async () => {
    const { result } = opened();
    await waitFor(() => expect(result.current.content).toBeDefined());
    act(() => result.current.change(change));
    act(() => result.current.save());
    act(() => result.current.change({ count: 16 }));
    await waitFor(() => expect(result.current.saving.isSuccess).toBe(true));
    expect(result.current.content).toMatchObject({ count: 16 });
    act(() => result.current.save());
    await waitFor(() => expect(result.current.dirty).toBe(false));
    expect(puts.map((put) => [put.revision, put.content.count])).toEqual([
      [3, undefined],
      [4, 16],
    ]);
  });

  it("keeps what was done while the server is away, and asks it nothing", async () => {
    const { result } = opened();
    await waitFor(() => expect(result.current.content).toBeDefined());
    act(() => result.current.change(change));
    await waitFor(() => expect(result.current.found).toEqual({ of: "tried" }));
    const asked = vi.mocked(client.GET).mock.calls.length;
    saved = { status: 503, body: undefined };
    act(() => result.current.save());
    await waitFor(() => expect(result.current.saving.isError).toBe(true));
    expect(result.current.content).toMatchObject(change);
    expect(vi.mocked(client.GET).mock.calls.length).toBe(asked);
  });

  it("keeps what was done when somebody else was faster, and reads what they did", async () => {
    const { result } = opened();
    await waitFor(() => expect(result.current.content).toBeDefined());
    act(() => result.current.change(change));
    saved = { status: 409, body: { message: "Somebody else saved it.", field: null } };
    server = page(9, 20);
    act(() => result.current.save());
    await waitFor(() => expect(result.current.saved.data?.revision).toBe(9));
    expect(result.current.content).toMatchObject(change);
    saved = { status: 200, body: page(10, 12) };
    act(() => result.current.save());
    await waitFor(() => expect(result.current.dirty).toBe(false));
    expect(puts.map((put) => put.revision)).toEqual([3, 9]);
  });
});
