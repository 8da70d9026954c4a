import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { readStored, writeStored } from "@/keep/stored";

export type Content = Shapes["BuildContent"];
export type LayerSaved = Shapes["LayerSaved"];
type Page = Shapes["BuildPage"];

const placeOf = (id: string) => `bellcrumb.build.${id}`;

/**
 * A dessert’s build: what is saved, what somebody is at (kept in the browser until it is saved),
 * and what that comes to.
 */
export function useBuild(kid: string, id: string) {
  const store = useQueryClient();
  const key = ["build", kid, id];
  const params = { path: { kid, dessert_id: id } };
  const saved = useQuery({
    queryKey: key,
    queryFn: () =>
      must(
        client.GET("/api/k/{kid}/desserts/{dessert_id}/build", { params: { path: params.path } }),
      ),
    staleTime: 0,
  });
  const [draft, setDraft] = useState<Content | null>(() => readStored<Content>(placeOf(id)));
  useEffect(() => {
    writeStored(placeOf(id), draft);
  }, [draft, id]);
  const tried = useQuery({
    queryKey: ["build-tried", kid, id, draft],
    enabled: draft !== null,
    queryFn: ({ signal }) => {
      if (!draft) throw new Error("nothing to try");
      return must(
        client.POST("/api/k/{kid}/desserts/{dessert_id}/build", { params, body: draft, signal }),
      );
    },
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const take = (page: Page, sent: Content | null) => {
    store.setQueryData(key, page);
    setDraft((now) => (now === sent ? null : now)); // what was done since it went out stays
    void store.invalidateQueries({ queryKey: ["shelf", kid] });
  };
  const saving = useMutation({
    mutationFn: (sent: Content | null) =>
      must(
        client.PUT("/api/k/{kid}/desserts/{dessert_id}/build", {
          params,
          body: {
            revision: saved.data?.revision ?? 0,
            content: sent ?? saved.data?.content ?? ({} as Content),
          },
        }),
      ),
    onSuccess: take,
    onError: (error) => {
      if (error instanceof ApiError && error.status === 409) void saved.refetch();
    },
  });
  const scale = useMutation({
    mutationFn: (content: Content) =>
      must(
        client.POST("/api/k/{kid}/desserts/{dessert_id}/build/scale", { params, body: content }),
      ),
    onSuccess: () => {
      void store.invalidateQueries({ queryKey: ["dessert", kid, id] });
      void store.invalidateQueries({ queryKey: ["build-tried", kid, id] });
      void saved.refetch();
    },
  });
  const page = draft ? (tried.data ?? saved.data) : saved.data;
  return {
    saved,
    content: draft ?? saved.data?.content,
    found: page?.found ?? null,
    problem: page?.problem ?? null,
    dirty: draft !== null,
    change: (part: Partial<Content>) =>
      setDraft((now) => ({ ...(now ?? saved.data?.content ?? ({} as Content)), ...part })),
    drop: () => setDraft(null),
    save: () => saving.mutate(draft),
    saving,
    scale,
  };
}
