/**
 * The process that makes sheets, in as many threads as the machine has processors less one. It gives way to the server
 * and the database: a sheet of years waits rather than a reading of now. It ends when the server
 * lets go of it.
 */
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type { FromSheets, ToSheets } from './sheetMessages';

/** As `nice` counts: what has 0 goes first. */
const GIVES_WAY = 10;
const IDLE_MS = 30_000;

os.setPriority(GIVES_WAY);
const makers = new Piscina({
  filename: path.join(path.dirname(fileURLToPath(import.meta.url)), 'sheet.thread.mjs'),
  minThreads: 0,
  maxThreads: Math.max(1, os.availableParallelism() - 1),
  idleTimeout: IDLE_MS,
});
const open = new Map<number, AbortController>();

const answer = (said: FromSheets) => {
  if (process.connected) process.send!(said);
};

process.on('message', async (asked: ToSheets) => {
  const { id } = asked;
  if ('given' in asked) {
    open.get(id)?.abort();
    return;
  }
  const stop = new AbortController();
  open.set(id, stop);
  try {
    answer({ id, made: await makers.run(asked.task, { signal: stop.signal }) });
  } catch (error) {
    answer({ id, failed: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  } finally {
    open.delete(id);
  }
});
process.on('disconnect', () => process.exit());
