import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef } from "react";

import { client, must, type Shapes } from "@/api/client";
import type { Point } from "@/figures/pot-curve";
import { hearServerClock } from "@/keep/clock";
import { outboxOf, useWaiting, type CookEvent, type Outbox } from "@/keep/outbox";

type Live = Shapes["LiveOut"];

export interface Watch extends Live {
  all: Point[];
}

/** A reading is on the screen within half a second of reaching the server. */
const EVERY_MS = 300;
/** Every so often everything is fetched again, so that readings delivered late fill their gap. */
const WHOLE_EVERY = 35;

/** A long cook is drawn from no more than this: the older half thins out, the newer stays whole. */
const MOST_POINTS = 2_400;

function thinned(all: Point[]): Point[] {
  const half = Math.floor(all.length / 2);
  return [...all.slice(0, half).filter((_, i) => i % 2 === 0), ...all.slice(half)];
}

interface Course {
  live: Watch | undefined;
  /** The server does not answer at the moment. */
  away: boolean;
  outbox: Outbox;
  waiting: CookEvent[];
}

/** The cook as the server knows it, and what waits here to be sent. */
export function useCourse(kid: string, batchId: string): Course {
  const store = useQueryClient();
  const round = useRef(0);
  const key = useMemo(() => ["live", kid, batchId], [kid, batchId]);

  const take = useCallback(
    (live: Live, whole: boolean): Watch => {
      hearServerClock(live.server_now);
      const before = whole ? [] : (store.getQueryData<Watch>(key)?.all ?? []);
      const last = before.at(-1)?.t_s ?? -1;
      const all = [...before, ...live.readings.filter((p) => p.t_s > last)];
      return { ...live, all: all.length > MOST_POINTS ? thinned(all) : all };
    },
    [key, store],
  );
  const outbox = useMemo(() => outboxOf(kid, batchId), [batchId, kid]);
  useEffect(
    () =>
      outbox.hear((live) => {
        // A poll on its way knows nothing of this move: it would put the page a step back.
        void store.cancelQueries({ queryKey: key });
        store.setQueryData<Watch>(key, take(live, true));
      }),
    [key, outbox, store, take],
  );
  const query = useQuery({
    queryKey: key,
    queryFn: async () => {
      const old = store.getQueryData<Watch>(key);
      round.current += 1;
      const whole = !old || round.current % WHOLE_EVERY === 0;
      const live = await must(
        client.GET("/api/k/{kid}/batches/{batch_id}/live", {
          params: {
            path: { kid, batch_id: batchId },
            query: { after_ms: whole ? -1 : old.last_ms },
          },
        }),
      );
      return take(live, whole);
    },
    refetchInterval: EVERY_MS,
    refetchIntervalInBackground: true,
    retry: false,
    staleTime: 0,
  });
  return { live: query.data, away: query.isError, outbox, waiting: useWaiting(outbox) };
}
