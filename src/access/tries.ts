/** How often something may be tried: counted in the database, so that any number of processes count as one. */

import { getTableName } from 'drizzle-orm';
import { RateLimiterPostgres, type RateLimiterRes } from 'rate-limiter-flexible';
import { connections } from '@/db/client';
import { tries } from '@/db/schema';
import { hashOf } from './secrets';

/** What is tried, how often in how many seconds, and for how many seconds nothing is tried after that. */
const LIMITS = {
  /** Passwords of one name. */
  name: { points: 8, duration: 900 },
  /** Passwords, codes and links from one address, whatever they are for. */
  address: { points: 60, duration: 900 },
  /** Passwords of one name from a browser that has signed in with it before: nobody else can use these up. */
  known: { points: 20, duration: 900 },
  /** Short codes of one person; after these only the password helps. */
  code: { points: 5, duration: 24 * 3600 },
  /** Codes for the person at the key, from one address. */
  helper: { points: 10, duration: 900 },
  /** The same of one workshop, from all addresses together: so many guesses at the codes that are open there. */
  helperOfShop: { points: 40, duration: 900 },
} as const;

export type Tried = keyof typeof LIMITS;

function limiter(of: Tried): RateLimiterPostgres {
  return new RateLimiterPostgres({
    storeClient: connections(),
    storeType: 'pool',
    tableName: getTableName(tries),
    tableCreated: true,
    clearExpiredByTimeout: false,
    keyPrefix: of,
    ...LIMITS[of],
  });
}

/** Counts one try. Null where it may be made; otherwise in how many seconds the next may. */
export async function triedOnce(of: Tried, what: string): Promise<number | null> {
  try {
    await limiter(of).consume(hashOf(what));
    return null;
  } catch (refused) {
    if (refused instanceof Error) throw refused;
    return Math.ceil((refused as RateLimiterRes).msBeforeNext / 1000);
  }
}

/** What was tried was right: the count begins anew. */
export async function triedWell(of: Tried, what: string): Promise<void> {
  await limiter(of).delete(hashOf(what));
}

/** What was tried was right, by one of many who are counted together: that one try does not count. */
export async function givenBack(of: Tried, what: string): Promise<void> {
  await limiter(of).reward(hashOf(what), 1);
}

/** When it may be tried again, in words. */
export function waitWords(seconds: number): string {
  const minutes = Math.ceil(seconds / 60);
  return `Too many tries. Wait ${minutes === 1 ? 'a minute' : minutes < 120 ? `${minutes} minutes` : `${Math.ceil(minutes / 60)} hours`} and try again.`;
}
