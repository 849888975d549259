/** The connection pool, which nobody asks inside a transaction. */
import { AsyncLocalStorage } from 'node:async_hooks';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import { journal } from '@/journal/journal';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;
/** One shop, inside a transaction of somebody else. */
export interface WithinShop {
  readonly tx: Transaction;
  readonly shopId: string;
}

export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

/** The pool, or a transaction: what reads for either takes it. */
export type Reader = Pick<Transaction, 'select' | 'selectDistinctOn'>;

/**
 * Every query of a page goes by an index. A plan that reads a small table whole is a little quicker while it is small, and
 * changes to it unnoticed; here plans stay what the tests saw. The rows are in memory, where any page costs the same.
 */
export const PLANNER = '-c enable_seqscan=off -c random_page_cost=1.1';

// One pool per process; kept across reloads of the development server.
const holder = globalThis as unknown as {
  everyTracePool?: pg.Pool;
  everyTraceInside?: AsyncLocalStorage<boolean>;
};

holder.everyTraceInside ??= new AsyncLocalStorage();

/** Whether what runs belongs to a transaction (`transaction.ts`). */
export const insideTransaction = holder.everyTraceInside;

/** The pool itself, for packages that bring their own statements. */
export function connections(): pg.Pool {
  if (!holder.everyTracePool) {
    const connectionString = process.env.DATABASE_URL;
    if (!connectionString) throw new Error('DATABASE_URL is not set; npm start and npm run dev set it.');
    holder.everyTracePool = new pg.Pool({
      connectionString,
      options: PLANNER,
      max: 10,
      connectionTimeoutMillis: 5000,
    });
    // A lost idle connection is replaced at the next query; it must not end the process.
    holder.everyTracePool.on('error', (err) =>
      journal.warn({ err }, 'an idle connection to the database was lost'),
    );
    // One in use is lost by its query, which says so; its own word for it must not end the process either.
    holder.everyTracePool.on('connect', (client) => client.on('error', () => undefined));
  }
  return holder.everyTracePool;
}

let made: { readonly of: pg.Pool; readonly db: Database } | null = null;

/** Throws inside a transaction: what reads or writes there is given the transaction. */
export function database(): Database {
  if (insideTransaction.getStore())
    throw new Error('The pool was asked inside a transaction: hand the transaction on.');
  const of = connections();
  if (made?.of !== of) made = { of, db: drizzle(of, { schema }) };
  return made.db;
}

export async function closeDatabase(): Promise<void> {
  await holder.everyTracePool?.end();
  holder.everyTracePool = undefined;
  made = null;
}
