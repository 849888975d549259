/**
 * Jobs that this browser holds: what the views of a job read. Kept as the server gave them, for as long as they are
 * among the ones opened last; what waits for the server is kept elsewhere and is never dropped with them.
 */

import { ENTRY_VERSION, newestVersion } from '#core/format';
import type { LogEvent } from '#core/log';
import { ownerHere } from '@/sync/who';
import { browserDb } from './browserDb';
import type { HeldJob } from './heldJob';

/** Versions of what is in a held job. One held in others is asked for anew: whoever has a newer program had a server. */
const FORM = [
  ENTRY_VERSION,
  newestVersion('every-trace/circuit'),
  newestVersion('every-trace/panel-set'),
].join();

/** So many jobs are held; the one that was opened longest ago makes room. */
const MOST_JOBS = 60;

/** Whether what is held is of the shop that is worked for here now: another's is not shown. */
function isOfShopHere(shop: string | undefined): boolean {
  const here = ownerHere();
  return shop === undefined || here === null || here.shop === shop;
}

/** The job and its confirmed entries, in no order; null where this browser has it not, or keeps nothing. */
export async function readHeld(
  id: string,
): Promise<{ readonly job: HeldJob; readonly events: readonly LogEvent[] } | null> {
  try {
    const transaction = (await browserDb()).transaction(['jobs', 'entries'], 'readonly');
    const [held, events] = await Promise.all([
      transaction.objectStore('jobs').get(id),
      transaction.objectStore('entries').index('byJob').getAll(id),
      transaction.done,
    ]);
    return held?.form === FORM && isOfShopHere(held.shop) ? { job: held.job, events } : null;
  } catch (error) {
    holdsNothing(error);
    return null;
  }
}

/** The jobs that are held, the one opened last first. */
export async function heldJobs(): Promise<readonly HeldJob[]> {
  try {
    const all = await (await browserDb()).getAll('jobs');
    return all
      .filter(({ form, shop }) => form === FORM && isOfShopHere(shop))
      .sort((one, other) => other.openedHere - one.openedHere)
      .map(({ job }) => job);
  } catch (error) {
    holdsNothing(error);
    return [];
  }
}

export async function holdJob(job: HeldJob): Promise<void> {
  try {
    const db = await browserDb();
    const shop = ownerHere()?.shop;
    const whose = shop === undefined ? {} : { shop };
    await db.put('jobs', { id: job.id, job, form: FORM, openedHere: Date.now(), ...whose });
    if ((await db.count('jobs')) <= MOST_JOBS) return;
    const all = await db.getAll('jobs');
    const old = all.sort((one, other) => other.openedHere - one.openedHere).slice(MOST_JOBS);
    for (const { id } of old) await letGo(id);
  } catch (error) {
    holdsNothing(error);
  }
}

export async function holdEntries(jobId: string, events: readonly LogEvent[]): Promise<void> {
  try {
    const transaction = (await browserDb()).transaction('entries', 'readwrite');
    await Promise.all([
      ...events.map((event) => transaction.store.put({ ...event, jobId })),
      transaction.done,
    ]);
  } catch (error) {
    holdsNothing(error);
  }
}

/** Forgets a job and its confirmed entries: the server has them, or knows of no such job. */
export async function letGo(jobId: string): Promise<void> {
  try {
    const transaction = (await browserDb()).transaction(['jobs', 'entries'], 'readwrite');
    const entries = transaction.objectStore('entries');
    const keys = await entries.index('byJob').getAllKeys(jobId);
    await Promise.all([
      ...keys.map((key) => entries.delete(key)),
      transaction.objectStore('jobs').delete(jobId),
      transaction.done,
    ]);
  } catch (error) {
    holdsNothing(error);
  }
}

/** A browser that holds nothing asks the server each time. */
function holdsNothing(error: unknown): void {
  console.warn('This browser holds no jobs between visits.', error);
}
