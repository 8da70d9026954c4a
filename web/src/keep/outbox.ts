import { useSyncExternalStore } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { hearServerClock, serverNow } from "@/keep/clock";
import { dropMoves, keepMoves, waitingMoves, type CookEvent, type Waiting } from "@/keep/durable";
import { newId } from "@/keep/id";

export type { CookEvent };
type Live = Shapes["LiveOut"];

const AT_ONCE = 100;
const FIRST_DELAY_MS = 300;
const LONGEST_DELAY_MS = 4_000;

/**
 * What a cook did, on the browser’s disk at the tap and kept until the server has it. Every event
 * has an id of its own, so one that arrives twice counts once; one that is refused drops no other.
 */
export class Outbox {
  private waiting: CookEvent[] = [];
  private readonly listeners = new Set<() => void>();
  private readonly hearers = new Set<(live: Live) => void>();
  private sending: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private delayMs = FIRST_DELAY_MS;
  private lastAtMs = 0;
  /** A refusal that sending again cannot mend. */
  refused: string | null = null;
  /** Done when what an earlier page left has been taken up. */
  readonly ready: Promise<void>;

  constructor(
    private readonly kid: string,
    private readonly batchId: string,
  ) {
    this.ready = this.takeUp();
  }

  private async takeUp(): Promise<void> {
    const left = await waitingMoves(this.batchId);
    const here = new Set(this.waiting.map((event) => event.id));
    const older = left.map((move) => move.event).filter((event) => !here.has(event.id));
    if (older.length) this.show([...older, ...this.waiting]);
    for (const event of older) this.lastAtMs = Math.max(this.lastAtMs, Date.parse(event.at));
    void this.flush();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): CookEvent[] => this.waiting;

  /** Be told how the cook stands after a delivery. */
  hear(listener: (live: Live) => void): () => void {
    this.hearers.add(listener);
    return () => this.hearers.delete(listener);
  }

  /** Later than the move before, also when a fresh answer has just set the server's clock back. */
  private nextAt(): string {
    this.lastAtMs = Math.max(serverNow().getTime(), this.lastAtMs + 1);
    return new Date(this.lastAtMs).toISOString();
  }

  /** Done when the move is on the disk. */
  async add(kind: CookEvent["kind"], more: { step?: string; value?: number } = {}): Promise<void> {
    const event: CookEvent = {
      id: newId(),
      kind,
      step: more.step ?? "",
      at: this.nextAt(),
      value: more.value ?? null,
    };
    this.show([...this.waiting, event]);
    const move: Waiting = {
      id: event.id,
      kid: this.kid,
      batchId: this.batchId,
      place: this.lastAtMs,
      event,
    };
    await keepMoves([move]);
    void this.flush();
  }

  private show(events: CookEvent[]): void {
    this.waiting = events;
    this.listeners.forEach((tell) => tell());
  }

  private forget(events: readonly CookEvent[]): void {
    const ids = new Set(events.map((event) => event.id));
    void dropMoves([...ids]);
    this.show(this.waiting.filter((event) => !ids.has(event.id)));
  }

  private post(events: CookEvent[]): Promise<Live> {
    return must(
      client.POST("/api/k/{kid}/batches/{batch_id}/events", {
        params: { path: { kid: this.kid, batch_id: this.batchId } },
        body: { events },
      }),
    );
  }

  /** Send what waits; done when it is there or has to wait for another try. */
  flush(): Promise<void> {
    clearTimeout(this.timer);
    this.sending ??= this.sendAll().finally(() => {
      this.sending = null;
    });
    return this.sending;
  }

  private async sendAll(): Promise<void> {
    while (this.waiting.length && (await this.send(this.waiting.slice(0, AT_ONCE))));
  }

  /** True when it was settled, so that the next can follow at once. */
  private async send(events: CookEvent[]): Promise<boolean> {
    try {
      const live = await this.post(events);
      this.delayMs = FIRST_DELAY_MS;
      hearServerClock(live.server_now);
      if (live.refused[0]) this.refused = live.refused[0].message;
      this.hearers.forEach((tell) => tell(live));
      this.forget(events);
      return true;
    } catch (error) {
      const final = error instanceof ApiError && !error.passes && error.status !== 401;
      if (!final) {
        this.delayMs = Math.min(LONGEST_DELAY_MS, this.delayMs * 2);
        this.timer = setTimeout(() => void this.flush(), this.delayMs);
        return false;
      }
      this.refused = error.message;
      // Refused together: each alone, so that only what is wrong is dropped.
      if (events.length > 1) {
        for (const event of events) if (!(await this.send([event]))) return false;
      } else {
        this.forget(events);
      }
      return true;
    }
  }
}

const open = new Map<string, Outbox>();

/** The one outbox of a cook in this page. */
export function outboxOf(kid: string, batchId: string): Outbox {
  const known = open.get(batchId);
  if (known) return known;
  const made = new Outbox(kid, batchId);
  open.set(batchId, made);
  return made;
}

/** Send what any cook has left waiting, also one whose page is not open. */
export async function deliverAll(): Promise<void> {
  for (const move of await waitingMoves()) void outboxOf(move.kid, move.batchId).flush();
}

export const useWaiting = (outbox: Outbox): CookEvent[] =>
  useSyncExternalStore(outbox.subscribe, outbox.snapshot);
