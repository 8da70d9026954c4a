/** Local storage that never throws: a full or closed store must not stop a cook. */
export function readStored<T>(key: string): T | null {
  try {
    const text = localStorage.getItem(key);
    return text === null ? null : (JSON.parse(text) as T);
  } catch {
    return null;
  }
}

export function writeStored(key: string, value: unknown): boolean {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

const DRAFT = "crumb.draft.";

export const draftKey = (versionId: string): string => `${DRAFT}${versionId}`;

/** How many formulas wait here to be saved. */
export function keptDrafts(): number {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(DRAFT)).length;
  } catch {
    return 0;
  }
}
