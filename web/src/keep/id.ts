/**
 * A random id (UUID, version 4). Browsers keep `crypto.randomUUID` for secure pages, and a tablet
 * in the kitchen's own network reads this one over plain HTTP.
 */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = Array.from(bytes, (b) => b.toString(16).padStart(2, "0")).join("");
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, "$1-$2-$3-$4-$5");
}

/**
 * Ids of what is on its way: every try to send the same thing has the same one, so that an answer
 * that was lost makes no second of it; once it has arrived, the next of its kind is another.
 */
export class SendIds {
  readonly #waiting = new Map<string, string>();

  of(thing: string): string {
    const id = this.#waiting.get(thing) ?? newId();
    this.#waiting.set(thing, id);
    return id;
  }

  arrived(thing: string): void {
    this.#waiting.delete(thing);
  }
}
