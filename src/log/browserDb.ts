/** The one database of this application in a browser: what waits for the server, and the jobs that are held here. */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { JobEvent } from '#core/format';
import type { LogEvent } from '#core/log';
import type { Owner } from '@/sync/who';
import type { HeldJob } from './heldJob';

export interface WaitingPicture {
  readonly id: string;
  readonly jobId: string;
  readonly blob: Blob;
  /** Whose it is; not said by an earlier program. */
  readonly by?: Owner;
  /** Why the server would not take it, when it was last asked. */
  readonly refused?: string;
}

/** An entry that waits: whose it is, and the reason where the server would not take it. */
export type WaitingEvent = JobEvent & { readonly refused?: string; readonly by?: Owner };

interface Schema extends DBSchema {
  outbox: { key: string; value: WaitingEvent; indexes: { byJob: string } };
  /** Pictures that the server does not have yet. */
  pictures: { key: string; value: WaitingPicture; indexes: { byJob: string } };
  /** Jobs without their log, as the server last gave them, and when each was last opened here. */
  jobs: {
    key: string;
    value: {
      readonly id: string;
      readonly job: HeldJob;
      readonly form: string;
      readonly openedHere: number;
      /** Of which shop; not said by an earlier program. */
      readonly shop?: string;
    };
  };
  /** Entries that the server has confirmed. */
  entries: { key: string; value: LogEvent & { readonly jobId: string }; indexes: { byJob: string } };
}

let opening: Promise<IDBPDatabase<Schema>> | null = null;

export function browserDb(): Promise<IDBPDatabase<Schema>> {
  opening ??= openDB<Schema>('every-trace', 3, {
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
      if (from < 3) {
        db.createObjectStore('jobs', { keyPath: 'id' });
        db.createObjectStore('entries', { keyPath: 'id' }).createIndex('byJob', 'jobId');
      }
    },
  });
  return opening;
}
