/** Reads circuits, panel sets and jobs in a thread beside the server's own (`map.thread.ts`, bundled before build and test). */
import path from 'node:path';
import { Piscina } from 'piscina';
import { type Checked, fail, type JobFile } from '#core/format';
import type { Asked, ReadMap } from './mapMessages';

/** A file that takes longer is no file of a vehicle. */
const LONGEST_MS = 20_000;
const MOST_MEGABYTES = 512;

// One pool per process; kept across reloads of the development server.
const holder = globalThis as unknown as { everyTraceReaders?: Piscina };

function readers(): Piscina {
  holder.everyTraceReaders ??= new Piscina({
    filename: path.join(process.cwd(), 'core/format/generated/map.thread.mjs'),
    minThreads: 0,
    maxThreads: 1,
    maxQueue: 50,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
  });
  return holder.everyTraceReaders;
}

/** The circuit or panel set that a text holds, or every problem with it. */
export function readMap(text: string): Promise<ReadMap> {
  return read({ what: 'map', text });
}

/** The job that a text holds, of whatever version its file is. */
export function readJob(text: string): Promise<Checked<JobFile>> {
  return read({ what: 'job', text });
}

/** A text that takes too much time or room is refused. */
async function read<T>(asked: Asked): Promise<Checked<T>> {
  try {
    return (await readers().run(asked, { signal: AbortSignal.timeout(LONGEST_MS) })) as Checked<T>;
  } catch (error) {
    const code = error instanceof Error ? ((error as { code?: unknown }).code ?? error.name) : '';
    if (code === 'ERR_WORKER_OUT_OF_MEMORY' || code === 'AbortError') {
      return fail(
        'too-much',
        '',
        'Reading it takes more time or room than any circuit, box or job does. Bring it in in parts.',
      );
    }
    throw error;
  }
}

/** Ends the threads; the next reading starts one again. */
export async function closeReaders(): Promise<void> {
  await holder.everyTraceReaders?.destroy();
  delete holder.everyTraceReaders;
}
