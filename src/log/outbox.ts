/** Events on their way to the server, kept in the browser until it has confirmed them. */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { JobEvent } from '#core/format';

export interface WaitingPicture {
  readonly id: string;
  readonly jobId: string;
  readonly blob: Blob;
  /** Why the server would not take it, when it was last asked. */
  readonly refused?: string;
}

/** An entry that waits; with the reason where the server would not take it. */
export type WaitingEvent = JobEvent & { readonly refused?: string };

interface OutboxSchema extends DBSchema {
  outbox: { key: string; value: WaitingEvent; indexes: { byJob: string } };
  /** Pictures that the server does not have yet. */
  pictures: { key: string; value: WaitingPicture; indexes: { byJob: string } };
}

let opening: Promise<IDBPDatabase<OutboxSchema>> | null = null;

function outbox(): Promise<IDBPDatabase<OutboxSchema>> {
  opening ??= openDB<OutboxSchema>('every-trace', 2, {
    // A later version in another tab is not kept waiting by this one; what is done here next opens it anew.
    blocking(_now, _wanted, event) {
      (event.target as IDBDatabase).close();
      opening = null;
    },
    terminated() {
      opening = null;
    },
    upgrade(db, from) {
      if (from < 1) db.createObjectStore('outbox', { keyPath: 'id' }).createIndex('byJob', 'jobId');
      if (from < 2) db.createObjectStore('pictures', { keyPath: 'id' }).createIndex('byJob', 'jobId');
    },
  });
  return opening;
}

/**
 * Entries are written down here first, at once: a page that is left the next moment takes its unfinished database work
 * with it.
 */
const AHEAD = 'every-trace:entries:';

/** All entries of one record under one key, so that they are there together or not at all. */
function writeAhead(events: readonly JobEvent[]): void {
  try {
    localStorage.setItem(AHEAD + events[0]!.id, JSON.stringify(events));
  } catch {
    // No room, or not allowed: the database has it a moment later.
  }
}

function writtenAhead(): { readonly key: string; readonly events: readonly JobEvent[] }[] {
  try {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(AHEAD))
      .map((key) => ({ key, events: JSON.parse(localStorage.getItem(key) ?? '[]') as JobEvent[] }));
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
export async function putInOutbox(events: readonly JobEvent[]): Promise<void> {
  writeAhead(events);
  const transaction = (await outbox()).transaction('outbox', 'readwrite');
  const kept = events.map((event) => transaction.store.put(event));
  transaction.commit();
  await Promise.all([...kept, transaction.done]);
  forgetAhead(events.map((event) => event.id));
}

export async function takeFromOutbox(ids: readonly string[]): Promise<void> {
  forgetAhead(ids);
  const transaction = (await outbox()).transaction('outbox', 'readwrite');
  await Promise.all([...ids.map((id) => transaction.store.delete(id)), transaction.done]);
}

/** All that waits, of every job: entries in the order in which they were made, and pictures. */
export async function everythingWaiting(): Promise<{
  readonly events: readonly WaitingEvent[];
  readonly pictures: readonly WaitingPicture[];
}> {
  const ahead = writtenAhead().flatMap(({ events }) => events);
  const [kept, pictures] = await outbox()
    .then((db) => Promise.all([db.getAll('outbox'), db.getAll('pictures')]))
    .catch((): [WaitingEvent[], WaitingPicture[]] => [[], []]);
  const events = new Map([...ahead, ...kept].map((event): [string, WaitingEvent] => [event.id, event]));
  return { events: [...events.values()].sort((one, other) => one.clientOrder - other.clientOrder), pictures };
}

/** Writes down why the server would not take an entry. It stays until it is taken, or given up by name. */
export async function markRefused(id: string, refused: string): Promise<void> {
  const transaction = (await outbox()).transaction('outbox', 'readwrite');
  const event = await transaction.store.get(id);
  if (event) await transaction.store.put({ ...event, refused });
  await transaction.done;
}

export async function putPicture(picture: WaitingPicture): Promise<void> {
  await (await outbox()).put('pictures', picture);
}

export async function dropPicture(id: string): Promise<void> {
  await (await outbox()).delete('pictures', id);
}
