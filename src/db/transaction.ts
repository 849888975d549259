/**
 * Transactions: all of it or nothing. Locks are taken in one order, job, vehicle, item of the stock, and of several of a sort
 * by their ids; what still meets another half-way is taken back by the database and done again.
 */
import { setTimeout as after } from 'node:timers/promises';
import { database, insideTransaction, type Transaction } from './client';
import { isTakenBack } from './errors';

const MOST_TRIES = 5;
const PAUSE_MS = 20;

/**
 * Runs `work` in a transaction. While it runs, nothing of it can ask the pool: who read beside the transaction would see what
 * it does not lock, and wait for a connection that the ones who wait for it hold. A deadlock or a failure to serialise is
 * done again, so `work` keeps nothing outside the database but its answer.
 */
export async function transaction<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
  const db = database();
  for (let tries = 1; ; tries++) {
    try {
      return await insideTransaction.run(true, () => db.transaction(work));
    } catch (error) {
      if (tries === MOST_TRIES || !isTakenBack(error)) throw error;
      await after(PAUSE_MS * 2 ** tries * Math.random());
    }
  }
}

/** Runs what belongs to no transaction of whoever begins it. */
export function beside<T>(work: () => T): T {
  return insideTransaction.exit(work);
}
