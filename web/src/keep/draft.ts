import { useEffect, useState, useSyncExternalStore } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import type { Content } from "@/api/queries";
import { draftKey, readStored, writeStored } from "@/keep/stored";
import { newId } from "@/keep/id";

type Version = Shapes["VersionOut"];
export type Conflict = Shapes["Conflict"];
export type SaveState = "saved" | "saving" | "kept" | "refused" | "conflict";

interface Kept {
  content: Content;
  revision: number;
  nextId: string;
}

/** What the screen sees of a text being written; a new object whenever anything changes. */
interface View {
  content: Content;
  state: SaveState;
  /** Why it is not saved, in a sentence. */
  message: string | null;
  field: string | null;
  conflict: Conflict | null;
}

const SAVE_AFTER_MS = 500;
const AGAIN_AFTER_MS = 1_500;

/** What a version says, without what it is: number, who saved it, whether it was cooked. */
export function contentOf(version: Version): Content {
  const own = new Set(["id", "part_id", "number", "revision", "cooked", "saved_by", "batches"]);
  return Object.fromEntries(
    Object.entries(version).filter(([field]) => !own.has(field)),
  ) as unknown as Content;
}

const same = (a: Content, b: Content) => JSON.stringify(a) === JSON.stringify(b);

/** A draft with every field, also one kept by a program that had fewer: those are the version's. */
function whole(kept: Kept | null, version: Version): Kept | null {
  if (!kept) return null;
  const saved = contentOf(version);
  const baking = { ...saved.baking, ...kept.content.baking } as NonNullable<Content["baking"]>;
  return { ...kept, content: { ...saved, ...kept.content, baking } };
}

/**
 * The text a cook is writing. Every keystroke is kept in the browser at once and saved on the
 * server shortly after; a cooked version is never changed, the edit makes the next one.
 */
export class Draft {
  private kept: Kept;
  private view: View;
  private readonly undos: { before: Content; after: Content }[] = [];
  private busy = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly kid: string,
    private version: Version,
    private readonly readOnly: boolean,
    private readonly onSaved: (version: Version) => void,
  ) {
    const stored = readOnly ? null : whole(readStored<Kept>(draftKey(version.id)), version);
    this.kept = stored ?? {
      content: contentOf(version),
      revision: version.revision,
      nextId: newId(),
    };
    this.view = {
      content: this.kept.content,
      state: stored && !same(stored.content, contentOf(version)) ? "kept" : "saved",
      message: null,
      field: null,
      conflict: null,
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): View => this.view;

  private show(part: Partial<View>): void {
    this.view = { ...this.view, ...part };
    this.listeners.forEach((tell) => tell());
  }

  get content(): Content {
    return this.view.content;
  }
  get state(): SaveState {
    return this.view.state;
  }
  get message(): string | null {
    return this.view.message;
  }
  get field(): string | null {
    return this.view.field;
  }
  get conflict(): Conflict | null {
    return this.view.conflict;
  }

  readonly change = (part: Partial<Content>): void => {
    if (this.readOnly) return;
    this.kept = { ...this.kept, content: { ...this.kept.content, ...part } };
    writeStored(draftKey(this.version.id), this.kept);
    this.show({ content: this.kept.content, state: "kept" });
    this.saveIn(SAVE_AFTER_MS);
  };

  /** A change the tool makes on the cook's word: one key takes it back. */
  readonly put = (part: Partial<Content>): void => {
    const before = this.kept.content;
    this.change(part);
    this.undos.push({ before, after: this.kept.content });
  };

  /** The same change going on (a point still being dragged): one undo takes back the whole. */
  readonly amend = (part: Partial<Content>): void => {
    const last = this.undos.at(-1);
    this.change(part);
    if (last) last.after = this.kept.content;
  };

  get canUndo(): boolean {
    return this.undos.length > 0;
  }

  /** Nothing was typed since: the key is ours, not the text box’s own. */
  get undoIsNext(): boolean {
    return this.undos.at(-1)?.after === this.kept.content;
  }

  readonly undo = (): void => {
    const last = this.undos.pop();
    if (last) this.change(last.before);
  };

  /** Take up a text kept from before a reload or a closed lid. */
  resume(): void {
    if (this.view.state === "kept") this.saveIn(50);
  }

  /** The page is left: what waits to be saved is sent now, and stays in the browser till it is. */
  rest(): void {
    clearTimeout(this.timer);
    if (this.view.state === "kept" && this.view.message === null) void this.save();
  }

  private saveIn(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), ms);
  }

  private async save(): Promise<void> {
    if (this.busy) {
      this.saveIn(SAVE_AFTER_MS);
      return;
    }
    this.busy = true;
    const trying = this.kept;
    this.show({ state: "saving" });
    try {
      const made = await (this.version.cooked ? this.postNext(trying) : this.putVersion(trying));
      this.taken(made, trying);
    } catch (error) {
      this.refused(error);
    } finally {
      this.busy = false;
    }
  }

  private putVersion(kept: Kept): Promise<Version> {
    return must(
      client.PUT("/api/k/{kid}/versions/{version_id}", {
        params: { path: { kid: this.kid, version_id: this.version.id } },
        body: { revision: kept.revision, content: kept.content },
      }),
    );
  }

  private postNext(kept: Kept): Promise<Version> {
    return must(
      client.POST("/api/k/{kid}/parts/{part_id}/versions", {
        params: { path: { kid: this.kid, part_id: this.version.part_id } },
        body: { id: kept.nextId, content: kept.content },
      }),
    );
  }

  private taken(made: Version, trying: Kept): void {
    const moved = !same(this.kept.content, trying.content);
    const next: Kept = { ...this.kept, revision: made.revision };
    writeStored(draftKey(this.version.id), null);
    if (moved) writeStored(draftKey(made.id), next);
    this.version = made;
    this.kept = made.id === trying.nextId ? { ...next, nextId: newId() } : next;
    if (moved) this.saveIn(50);
    this.show({ state: moved ? "kept" : "saved", message: null, field: null });
    this.onSaved(made);
  }

  private refused(error: unknown): void {
    if (!(error instanceof ApiError)) throw error;
    if (error.status === 409) {
      this.show({ state: "conflict", conflict: error.body as Conflict });
      return;
    }
    const again = error.passes || error.status === 401;
    this.show({
      state: again ? "kept" : "refused",
      message: error.message,
      field: error.field?.replace(/^content\./, "") ?? null,
    });
    if (again) this.saveIn(AGAIN_AFTER_MS);
  }

  /** Go on from the other text; when it has been cooked since, the next save makes a version. */
  private settle(content: Content, theirs: Version): void {
    this.version = theirs;
    this.kept = { ...this.kept, content, revision: theirs.revision };
    writeStored(draftKey(this.version.id), this.kept);
    this.show({ content, conflict: null, message: null, field: null, state: "kept" });
    this.saveIn(0);
  }

  readonly takeTheirs = (): void => {
    const theirs = this.view.conflict?.theirs;
    if (theirs) this.settle(contentOf(theirs), theirs);
  };

  readonly keepMine = (): void => {
    const theirs = this.view.conflict?.theirs;
    if (theirs) this.settle(this.kept.content, theirs);
  };
}

/** The draft of a version and of those it makes; key the component by what was opened. */
export function useDraft(
  kid: string,
  version: Version,
  readOnly: boolean,
  onSaved: (version: Version) => void,
): Draft {
  const [draft] = useState(() => new Draft(kid, version, readOnly, onSaved));
  useSyncExternalStore(draft.subscribe, draft.snapshot);
  useEffect(() => {
    draft.resume();
    return () => draft.rest();
  }, [draft]);
  return draft;
}
