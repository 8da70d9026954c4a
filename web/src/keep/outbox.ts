import { useSyncExternalStore } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { hearServerClock, serverNow } from "@/keep/clock";
import { readStored, writeStored } from "@/keep/stored";
import { newId } from "@/keep/id";

export type CookEvent = Shapes["EventIn"];
type Live = Shapes["LiveOut"];

/**
 * What a cook did, kept in the browser until the server has it. Every event has an id of its own,
 * so one that arrives twice counts once.
 */
export class Outbox {
  private waiting: CookEvent[];
  private readonly listeners = new Set<() => void>();
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private delayMs = 300;
  /** A refusal that sending again cannot mend. */
  refused: string | null = null;

  constructor(
    private readonly kid: string,
    private readonly batchId: string,
    private readonly heard: (live: Live) => void,
  ) {
    this.waiting = readStored<CookEvent[]>(this.key) ?? [];
    if (this.waiting.length) void this.flush();
  }

  private get key(): string {
    return `crumb.outbox.${this.batchId}`;
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): CookEvent[] => this.waiting;

  add(kind: CookEvent["kind"], more: { step?: string; value?: number } = {}): void {
    const event: CookEvent = {
      id: newId(),
      kind,
      step: more.step ?? "",
      at: serverNow().toISOString(),
      value: more.value ?? null,
    };
    this.keep([...this.waiting, event]);
    void this.flush();
  }

  private keep(events: CookEvent[]): void {
    this.waiting = events;
    writeStored(this.key, events.length ? events : null);
    this.listeners.forEach((tell) => tell());
  }

  async flush(): Promise<void> {
    clearTimeout(this.timer);
    if (this.sending || !this.waiting.length) return;
    this.sending = true;
    const batch = this.waiting.slice(0, 100);
    try {
      const live = await must(
        client.POST("/api/k/{kid}/batches/{batch_id}/events", {
          params: { path: { kid: this.kid, batch_id: this.batchId } },
          body: { events: batch },
        }),
      );
      this.delayMs = 300;
      hearServerClock(live.server_now);
      const sent = new Set(batch.map((event) => event.id));
      this.heard(live);
      this.keep(this.waiting.filter((event) => !sent.has(event.id)));
    } catch (error) {
      const final = error instanceof ApiError && !error.passes && error.status !== 401;
      if (final) {
        this.refused = error.message;
        this.keep(this.waiting.filter((event) => !batch.includes(event)));
      } else {
        this.delayMs = Math.min(4_000, this.delayMs * 2);
        this.timer = setTimeout(() => void this.flush(), this.delayMs);
      }
    } finally {
      this.sending = false;
    }
    if (this.waiting.length && this.delayMs === 300) void this.flush();
  }
}

export const useWaiting = (outbox: Outbox): CookEvent[] =>
  useSyncExternalStore(outbox.subscribe, outbox.snapshot);
