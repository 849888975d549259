/** Rows that nobody needs any more: they go after a time. Any number of processes may do it; what is gone is gone. */
import { lt, or } from 'drizzle-orm';
import { now } from '@/clock/now';
import { journal } from '@/journal/journal';
import { database } from './client';
import { entryLinks, helpers, presence, requests, sessions, tries, verifications } from './schema';

const DAY_MS = 86_400_000;
/** How long each is kept, days. A phone that had no signal sends its requests again within that time. */
const REQUESTS = 180;
const SESSIONS = 30;
const LINKS = 90;
const PRESENCE = 1;

const FIRST_MS = 10 * 60_000;
const EVERY_MS = 6 * 3_600_000;

/** Takes away what is over, and gives how many rows of each table that were. */
export async function prune(): Promise<Readonly<Record<string, number>>> {
  const db = database();
  const moment = now().getTime();
  const before = (days: number) => new Date(moment - days * DAY_MS);
  const instant = (days: number) => before(days).toISOString();
  const gone = {
    tries: db.delete(tries).where(lt(tries.expire, moment)),
    sessions: db.delete(sessions).where(lt(sessions.expiresAt, before(SESSIONS))),
    verifications: db.delete(verifications).where(lt(verifications.expiresAt, before(0))),
    requests: db.delete(requests).where(lt(requests.madeAt, instant(REQUESTS))),
    links: db.delete(entryLinks).where(lt(entryLinks.expiresAt, instant(LINKS))),
    helpers: db
      .delete(helpers)
      .where(or(lt(helpers.expiresAt, instant(LINKS)), lt(helpers.endedAt, instant(LINKS)))),
    presence: db.delete(presence).where(lt(presence.seenAt, instant(PRESENCE))),
  };
  const counts: Record<string, number> = {};
  for (const [name, rows] of Object.entries(gone)) counts[name] = (await rows).rowCount ?? 0;
  return counts;
}

const holder = globalThis as unknown as { everyTracePruning?: NodeJS.Timeout };

/** Prunes from time to time for as long as the process runs. */
export function startPruning(): void {
  if (holder.everyTracePruning) return;
  const look = () => {
    prune().then(
      (counts) => journal.info(counts, 'what was over is taken away'),
      (err: unknown) => journal.error({ err }, 'what was over could not be taken away'),
    );
    holder.everyTracePruning = setTimeout(look, EVERY_MS).unref();
  };
  holder.everyTracePruning = setTimeout(look, FIRST_MS).unref();
}
