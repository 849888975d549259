/** Events on their way to the server, kept in the browser until it has confirmed them. */
import { browserDb, type WaitingEvent, type WaitingPicture } from './browserDb';

export type { WaitingEvent, WaitingPicture } from './browserDb';

/**
 * Entries are written down here first, at once: a page that is left the next moment takes its unfinished database work
 * with it.
 */
const AHEAD = 'every-trace:entries:';

/** All entries of one record under one key, so that they are there together or not at all. */
function writeAhead(events: readonly WaitingEvent[]): void {
  try {
    localStorage.setItem(AHEAD + events[0]!.id, JSON.stringify(events));
  } catch {
    // No room, or not allowed: the database has it a moment later.
  }
}

function writtenAhead(): { readonly key: string; readonly events: readonly WaitingEvent[] }[] {
  try {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(AHEAD))
      .map((key) => ({ key, events: JSON.parse(localStorage.getItem(key) ?? '[]') as WaitingEvent[] }));
  } catch {
    return [];
  }
}

function forgetAhead(ids: readonly string[]): void {
  for (const { key, events } of writtenAhead()) {
    if (events.every((event) => ids.includes(event.id))) localStorage.removeItem(key);
  }
}

/** Keeps entries that belong together, all or none. They are safe when this returns, not when its promise does. */
export async function putInOutbox(events: readonly WaitingEvent[]): Promise<void> {
  writeAhead(events);
  const transaction = (await browserDb()).transaction('outbox', 'readwrite');
  const kept = events.map((event) => transaction.store.put(event));
  transaction.commit();
  await Promise.all([...kept, transaction.done]);
  forgetAhead(events.map((event) => event.id));
}

export async function takeFromOutbox(ids: readonly string[]): Promise<void> {
  forgetAhead(ids);
  const transaction = (await browserDb()).transaction('outbox', 'readwrite');
  await Promise.all([...ids.map((id) => transaction.store.delete(id)), transaction.done]);
}

/** All that waits, of every job: entries in the order in which they were made, and pictures. */
export async function everythingWaiting(): Promise<{
  readonly events: readonly WaitingEvent[];
  readonly pictures: readonly WaitingPicture[];
}> {
  const ahead = writtenAhead().flatMap(({ events }) => events);
  const [kept, pictures] = await browserDb()
    .then((db) => Promise.all([db.getAll('outbox'), db.getAll('pictures')]))
    .catch((): [WaitingEvent[], WaitingPicture[]] => [[], []]);
  const events = new Map([...ahead, ...kept].map((event): [string, WaitingEvent] => [event.id, event]));
  return { events: [...events.values()].sort((one, other) => one.clientOrder - other.clientOrder), pictures };
}

/** Writes down why the server would not take an entry. It stays until it is taken, or given up by name. */
export async function markRefused(id: string, refused: string): Promise<void> {
  const transaction = (await browserDb()).transaction('outbox', 'readwrite');
  const event = await transaction.store.get(id);
  if (event) await transaction.store.put({ ...event, refused });
  await transaction.done;
}

export async function putPicture(picture: WaitingPicture): Promise<void> {
  await (await browserDb()).put('pictures', picture);
}

export async function dropPicture(id: string): Promise<void> {
  await (await browserDb()).delete('pictures', id);
}
