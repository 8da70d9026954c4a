import { openDB, type DBSchema, type IDBPDatabase } from "idb";

import type { Shapes } from "@/api/client";

export type CookEvent = Shapes["EventIn"];

/** A move of a cook that the server does not have yet. */
export interface Waiting {
  id: string;
  kid: string;
  batchId: string;
  /** Its place among the moves of this browser: later ones are larger. */
  place: number;
  event: CookEvent;
}

interface Store extends DBSchema {
  moves: { key: string; value: Waiting; indexes: { batch: string } };
}

let opened: Promise<IDBPDatabase<Store> | null> | undefined;

/** The browser’s own store; null where it is closed to us (some private windows). */
function store(): Promise<IDBPDatabase<Store> | null> {
  opened ??= openDB<Store>("bell-crumb", 1, {
    upgrade(db) {
      db.createObjectStore("moves", { keyPath: "id" }).createIndex("batch", "batchId");
    },
  }).catch(() => null);
  return opened;
}

/**
 * Keep moves for good: when this is done they are on the disk, also for a browser that is killed in
 * the next moment ("strict"). False where the browser keeps nothing.
 */
export async function keepMoves(moves: readonly Waiting[]): Promise<boolean> {
  const db = await store();
  if (!db) return false;
  try {
    const tx = db.transaction("moves", "readwrite", { durability: "strict" });
    await Promise.all([...moves.map((move) => tx.store.put(move)), tx.done]);
    return true;
  } catch {
    return false;
  }
}

export async function dropMoves(ids: readonly string[]): Promise<void> {
  const db = await store();
  if (!db) return;
  try {
    const tx = db.transaction("moves", "readwrite");
    await Promise.all([...ids.map((id) => tx.store.delete(id)), tx.done]);
  } catch {
    // Sent again they count once: the server knows them by their ids.
  }
}

const byPlace = (a: Waiting, b: Waiting) => a.place - b.place;

/** The moves of one cook that wait, in the order they were made; of all cooks without an id. */
export async function waitingMoves(batchId?: string): Promise<Waiting[]> {
  const db = await store();
  if (!db) return [];
  try {
    const found = batchId
      ? await db.getAllFromIndex("moves", "batch", batchId)
      : await db.getAll("moves");
    return found.sort(byPlace);
  } catch {
    return [];
  }
}
