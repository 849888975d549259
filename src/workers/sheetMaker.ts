/** Sheets and labels made in a process beside the server (`sheets.process.ts`, bundled before build and test). */
import { type ChildProcess, spawn } from 'node:child_process';
import path from 'node:path';
import type { FromSheets, SheetMade, SheetTask, ToSheets } from './sheetMessages';

/** A job with thousands of entries takes some seconds; what takes longer is given up. */
const LONGEST_MS = 120_000;
/** With nobody waiting for so long the process is let go of. */
const IDLE_MS = 60_000;

const PROGRAM = path.join(process.cwd(), 'core/format/generated/sheets.process.mjs');

interface Waiting {
  readonly done: (made: SheetMade) => void;
  readonly fail: (error: Error) => void;
}

interface Makers {
  readonly child: ChildProcess;
  readonly waiting: Map<number, Waiting>;
  next: number;
  /** Until it is let go of, while nobody waits. */
  idle: NodeJS.Timeout | undefined;
}

// One process for all; kept across reloads of the development server.
const holder = globalThis as unknown as { everyTraceSheets?: Makers | undefined };

function makers(): Makers {
  if (holder.everyTraceSheets?.child.connected) return holder.everyTraceSheets;
  const child = spawn(process.execPath, [PROGRAM], {
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    serialization: 'advanced',
  });
  // The server may end while nobody waits for a sheet.
  child.unref();
  child.channel?.unref();
  const made: Makers = { child, waiting: new Map(), next: 1, idle: undefined };
  child.on('message', (said: FromSheets) => {
    const one = made.waiting.get(said.id);
    made.waiting.delete(said.id);
    if ('made' in said) one?.done(said.made);
    else one?.fail(new Error(said.failed));
  });
  const ended = () => {
    for (const { fail } of made.waiting.values()) fail(new Error('The process that makes sheets has ended.'));
    made.waiting.clear();
  };
  child.on('exit', ended);
  child.on('error', ended);
  holder.everyTraceSheets = made;
  return made;
}

/** The PDF, as bytes; or the sheet as lines, where it is read on a page. Throws where it takes too long. */
export async function makeSheet(task: SheetTask): Promise<SheetMade> {
  const one = makers();
  const { child, waiting } = one;
  clearTimeout(one.idle);
  const id = one.next;
  one.next += 1;
  const say = (words: ToSheets) => child.send(words);
  let late: NodeJS.Timeout | undefined;
  try {
    return await new Promise<SheetMade>((done, fail) => {
      waiting.set(id, { done, fail });
      say({ id, task });
      late = setTimeout(() => {
        waiting.delete(id);
        if (child.connected) say({ id, given: 'up' });
        fail(new Error(`A sheet was not made within ${LONGEST_MS / 1000} s.`));
      }, LONGEST_MS);
    });
  } finally {
    clearTimeout(late);
    if (waiting.size === 0) {
      one.idle = setTimeout(() => void (child.connected && child.disconnect()), IDLE_MS).unref();
    }
  }
}

/** Ends the process; the next sheet starts one again. */
export async function closeMakers(): Promise<void> {
  const child = holder.everyTraceSheets?.child;
  delete holder.everyTraceSheets;
  if (!child || child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill();
  await ended;
}
