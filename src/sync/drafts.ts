/**
 * What was typed and is not kept elsewhere yet, in this browser: read back after a tap, a reload or a refusal. A browser
 * that keeps nothing, or has no room, loses no more than before.
 */

const PREFIX = 'every-trace kept ';

export function readDraft(key: string): string | null {
  try {
    return localStorage.getItem(PREFIX + key);
  } catch {
    return null;
  }
}

/** Keeps a draft; null takes it away. */
export function writeDraft(key: string, text: string | null): void {
  try {
    if (text === null) localStorage.removeItem(PREFIX + key);
    else localStorage.setItem(PREFIX + key, text);
  } catch {
    // No room, or not allowed.
  }
}

/** A draft that was kept as fields; none of them where it is not there, or is something else. */
export function readKept<T extends object>(key: string): Partial<T> {
  try {
    const kept: unknown = JSON.parse(readDraft(key) ?? '{}');
    return kept !== null && typeof kept === 'object' && !Array.isArray(kept) ? (kept as Partial<T>) : {};
  } catch {
    return {};
  }
}

/** What is remembered in this tab alone, until it is closed. */
export function readInTab(key: string): string | null {
  try {
    return sessionStorage.getItem(PREFIX + key);
  } catch {
    return null;
  }
}

export function writeInTab(key: string, text: string | null): void {
  try {
    if (text === null) sessionStorage.removeItem(PREFIX + key);
    else sessionStorage.setItem(PREFIX + key, text);
  } catch {
    // Not allowed: it is asked again.
  }
}

/** Keys of drafts that begin alike, without the beginning. */
export function draftsUnder(beginning: string): readonly string[] {
  try {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(PREFIX + beginning))
      .map((key) => key.slice(PREFIX.length + beginning.length))
      .sort();
  } catch {
    return [];
  }
}
