/** Sheets and labels made in a thread beside the server's own (`sheet.thread.ts`, bundled before build and test). */
import path from 'node:path';
import { Piscina } from 'piscina';
import type { Sheet } from '#core/log';
import type { SheetAsked } from './sheet.thread';

/** A job with thousands of entries takes some seconds; what takes longer is given up. */
const LONGEST_MS = 120_000;

const holder = globalThis as unknown as { everyTraceSheets?: Piscina };

function makers(): Piscina {
  holder.everyTraceSheets ??= new Piscina({
    filename: path.join(process.cwd(), 'core/format/generated/sheet.thread.mjs'),
    minThreads: 0,
    maxThreads: 1,
    maxQueue: 50,
    idleTimeout: 30_000,
  });
  return holder.everyTraceSheets;
}

export async function makePdf(asked: SheetAsked): Promise<Uint8Array> {
  return (await makers().run(asked, { signal: AbortSignal.timeout(LONGEST_MS) })) as Uint8Array;
}

/** The same sheet as lines, for a page that is made on the server. */
export async function makeSheet(asked: SheetAsked): Promise<Sheet> {
  const lines = { ...asked, as: 'lines' };
  return (await makers().run(lines, { signal: AbortSignal.timeout(LONGEST_MS) })) as Sheet;
}

/** Ends the thread; the next sheet starts one again. */
export async function closeMakers(): Promise<void> {
  await holder.everyTraceSheets?.destroy();
  delete holder.everyTraceSheets;
}
