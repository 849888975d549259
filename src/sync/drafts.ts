/**
 * What was typed and is not kept elsewhere yet, in this browser: read back after a tap, a reload or a refusal. A browser
 * that keeps nothing, or has no room, loses no more than before.
 */

const PREFIX = 'every-trace kept ';
/** Who this browser was last told works in it: the one thing here that belongs to nobody. */
const WHO = 'who';

/** Undefined until it was looked for here; null where this browser was never told. */
let owner: string | null | undefined;

/** Where what a person typed stands: each has a place of the own, so that nobody finds what another began. */
function placeOf(key: string): string {
  if (key === WHO) return PREFIX + key;
  owner ??= toldOwner();
  return owner === null ? PREFIX + key : `${PREFIX}${owner}: ${key}`;
}

/** Who this browser was told of last: a page that is loaded anew finds the drafts before it has asked. */
function toldOwner(): string | null {
  try {
    const told = JSON.parse(localStorage.getItem(PREFIX + WHO) ?? '{}') as { personId?: unknown };
    return typeof told.personId === 'string' ? told.personId : null;
  } catch {
    return null;
  }
}

/**
 * Says whose drafts are read and written from now on. What was typed before anybody was known is that person's: it was
 * typed in the page that the person had before them.
 */
export function draftsOf(personId: string): void {
  owner = personId;
  try {
    for (const key of Object.keys(localStorage)) {
      const [, plain] = /^every-trace kept (?![0-9a-f-]{36}: )(.+)$/s.exec(key) ?? [];
      if (plain === undefined || plain === WHO) continue;
      const mine = placeOf(plain);
      if (localStorage.getItem(mine) === null) localStorage.setItem(mine, localStorage.getItem(key) ?? '');
      localStorage.removeItem(key);
    }
  } catch {
    // No room, or not allowed: what is there stays where it is.
  }
}

export function readDraft(key: string): string | null {
  try {
    return localStorage.getItem(placeOf(key));
  } catch {
    return null;
  }
}

/** Keeps a draft; null takes it away. */
export function writeDraft(key: string, text: string | null): void {
  try {
    if (text === null) localStorage.removeItem(placeOf(key));
    else localStorage.setItem(placeOf(key), text);
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
      .filter((key) => key.startsWith(placeOf(beginning)))
      .map((key) => key.slice(placeOf(beginning).length))
      .sort();
  } catch {
    return [];
  }
}
