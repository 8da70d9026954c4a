import {
  keepPreviousData,
  QueryClient,
  useInfiniteQuery,
  useQuery,
  type UseQueryResult,
} from "@tanstack/react-query";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { hearServerClock } from "@/keep/clock";

export const cache = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => error instanceof ApiError && error.passes && count < 60,
      retryDelay: (count) => Math.min(4_000, 300 * 2 ** count),
      refetchOnWindowFocus: false,
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});

async function readSession(): Promise<Shapes["SessionOut"]> {
  const session = await must(client.GET("/api/session"));
  hearServerClock(session.server_now);
  return session;
}

export const useSession = () => useQuery({ queryKey: ["session"], queryFn: readSession });

export const useCraft = () =>
  useQuery({
    queryKey: ["craft"],
    queryFn: () => must(client.GET("/api/craft")),
    staleTime: Infinity,
  });

export const useKitchen = (kid: string) =>
  useQuery({
    queryKey: ["kitchen", kid],
    queryFn: () => must(client.GET("/api/k/{kid}", { params: { path: { kid } } })),
    staleTime: 60_000,
  });

const STRETCH = 24;

/** The shelf, a stretch at a time; `search` finds words in names and lines. */
export const useShelf = (kid: string, search = "") =>
  useInfiniteQuery({
    queryKey: ["shelf", kid, search],
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) =>
      must(
        client.GET("/api/k/{kid}/desserts", {
          params: { path: { kid }, query: { search, skip: pageParam, take: STRETCH } },
          signal,
        }),
      ),
    getNextPageParam: (last, pages) => {
      const have = pages.reduce((sum, page) => sum + page.cards.length, 0);
      return last.cards.length && have < last.total ? have : undefined;
    },
    placeholderData: keepPreviousData,
  });

/** What all the parts of a dessert come to, as they are saved. */
export const useTotal = (kid: string, id: string, on: boolean) =>
  useQuery({
    queryKey: ["total", kid, id],
    enabled: on,
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/desserts/{dessert_id}/total", {
          params: { path: { kid, dessert_id: id } },
        }),
      ),
    staleTime: 0,
    placeholderData: keepPreviousData,
  });

/** Other desserts of the same family, as points for the map. */
export const useSiblings = (kid: string, id: string, family: string | undefined) =>
  useQuery({
    queryKey: ["siblings", kid, id, family],
    enabled: family !== undefined,
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/desserts/{dessert_id}/siblings", {
          params: { path: { kid, dessert_id: id }, query: { family: family ?? "" } },
        }),
      ),
    staleTime: 60_000,
  });

export const useDessert = (kid: string, id: string) =>
  useQuery({
    queryKey: ["dessert", kid, id],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/desserts/{dessert_id}", {
          params: { path: { kid, dessert_id: id } },
        }),
      ),
  });

export const useDevices = (kid: string) =>
  useQuery({
    queryKey: ["devices", kid],
    queryFn: () => must(client.GET("/api/k/{kid}/devices", { params: { path: { kid } } })),
    refetchInterval: 15_000,
  });

// A phone shows a fifth of them at a time, and scrolls for each.
const PAGE = matchMedia("(max-width: 639px)").matches ? 20 : 60;

export type Wanted = Partial<{
  oven: string;
  family: string;
  since: string | null;
  until: string | null;
  search: string;
  texture: Shapes["SetOut"]["class"] | "";
  fault: string;
  judged: "" | "yes" | "no";
  dessert: string;
}>;

/** The book, newest first, a stretch at a time; only what is wanted. */
export const useBook = (kid: string, wanted: Wanted = {}) =>
  useInfiniteQuery({
    queryKey: ["book", kid, wanted],
    placeholderData: keepPreviousData,
    initialPageParam: undefined as string | undefined,
    queryFn: ({ pageParam, signal }) =>
      must(
        client.GET("/api/k/{kid}/batches", {
          params: {
            path: { kid },
            query: { take: PAGE, ...wanted, ...(pageParam ? { before: pageParam } : {}) },
          },
          signal,
        }),
      ),
    getNextPageParam: (last) => (last.length === PAGE ? last.at(-1)?.started_at : undefined),
  });

/** The cooks that are going on now. */
export const useGoing = (kid: string, everyMs: number | false = false) =>
  useQuery({
    queryKey: ["going", kid],
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/batches", { params: { path: { kid }, query: { going: true } } }),
      ),
    refetchInterval: everyMs,
  });

export const useBatch = (kid: string, id: string | undefined) =>
  useQuery({
    queryKey: ["batch", kid, id],
    enabled: id !== undefined,
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/batches/{batch_id}", {
          params: { path: { kid, batch_id: id ?? "" } },
        }),
      ),
  });

export type Content = Shapes["Content"];

export type Plane = Shapes["SetMap"]["plane"];

/** The answer to a formula, asked on every keystroke; the last one stays until the next is in. */
export function useAnswer(
  kid: string,
  content: Content | undefined,
  kind?: Shapes["PartOut"]["kind"],
  plane: Plane = "starch_egg",
): UseQueryResult<Shapes["FormulaOut"]> {
  const ask = content && {
    // A note decides nothing: writing one asks nothing.
    content: { ...content, note: "", lines_text: content.lines_text.slice(0, 20_000) },
    kind: kind ?? null,
    plane,
  };
  return useQuery({
    queryKey: ["answer", kid, ask],
    enabled: ask !== undefined,
    queryFn: ({ signal }) => {
      if (!ask) throw new Error("nothing to ask");
      return must(
        client.POST("/api/k/{kid}/answer", { params: { path: { kid } }, body: ask, signal }),
      );
    },
    placeholderData: keepPreviousData,
    staleTime: 60_000,
    gcTime: 60_000,
  });
}

/** The stove plan of a formula; the last one stays until the next is in. */
export const usePlan = (
  kid: string,
  content: Content | undefined,
  kind: Shapes["PartOut"]["kind"],
) =>
  useQuery({
    queryKey: ["plan", kid, content, kind],
    enabled: content !== undefined,
    queryFn: ({ signal }) => {
      if (!content) throw new Error("nothing to plan");
      return must(
        client.POST("/api/k/{kid}/plan", {
          params: { path: { kid } },
          body: { content, kind },
          signal,
        }),
      );
    },
    placeholderData: keepPreviousData,
    staleTime: 60_000,
    gcTime: 60_000,
    retry: (count, error) => error instanceof ApiError && error.passes && count < 60,
  });

type Kind = Shapes["PartOut"]["kind"];

const kept = {
  placeholderData: keepPreviousData,
  staleTime: 60_000,
  gcTime: 60_000,
  retry: (count: number, error: Error) => error instanceof ApiError && error.passes && count < 60,
};

/** A part baked; the last answer stays until the next is in. */
export const useBake = (kid: string, content: Content | undefined, kind: Kind) =>
  useQuery({
    ...kept,
    queryKey: ["bake", kid, content, kind],
    enabled: content !== undefined,
    queryFn: ({ signal }) => {
      if (!content) throw new Error("nothing to bake");
      return must(
        client.POST("/api/k/{kid}/bake", {
          params: { path: { kid } },
          body: { content, kind, frames: true },
          signal,
        }),
      );
    },
  });

/** A part put away to get cold. */
export const useCool = (kid: string, content: Content, kind: Kind) =>
  useQuery({
    ...kept,
    queryKey: ["cool", kid, content, kind],
    queryFn: ({ signal }) =>
      must(
        client.POST("/api/k/{kid}/cool", {
          params: { path: { kid } },
          body: { content, kind },
          signal,
        }),
      ),
  });

/** The same bake in the other kind of oven. */
export const useConverted = (kid: string, content: Content, kind: Kind, on: boolean) =>
  useQuery({
    ...kept,
    queryKey: ["convert", kid, content, kind],
    enabled: on,
    queryFn: ({ signal }) =>
      must(
        client.POST("/api/k/{kid}/bake/convert", {
          params: { path: { kid } },
          body: { content, kind },
          signal,
        }),
      ),
  });

/** A crust baked blind, and how long it stays crisp. */
export const useCrust = (kid: string, content: Content, kind: Kind) =>
  useQuery({
    ...kept,
    queryKey: ["crust", kid, content, kind],
    queryFn: ({ signal }) =>
      must(
        client.POST("/api/k/{kid}/crust", {
          params: { path: { kid } },
          body: { content, kind },
          signal,
        }),
      ),
  });
