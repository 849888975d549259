/** Reads circuits and panel sets in a thread beside the server's own (`map.thread.ts`, bundled before build and test). */
import path from 'node:path';
import { Piscina } from 'piscina';
import { type Checked, type CircuitFile, fail, type PanelSetFile } from '#core/format';

export type ReadMap = Checked<CircuitFile | PanelSetFile>;

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

/** The file that a text holds, or every problem with it; a text that takes too much time or room is refused. */
export async function readMap(text: string): Promise<ReadMap> {
  try {
    return (await readers().run(text, { signal: AbortSignal.timeout(LONGEST_MS) })) as ReadMap;
  } catch (error) {
    const code = error instanceof Error ? ((error as { code?: unknown }).code ?? error.name) : '';
    if (code === 'ERR_WORKER_OUT_OF_MEMORY' || code === 'AbortError') {
      return fail(
        'too-much',
        '',
        'Reading it takes more time or room than any circuit or box does. Bring it in in parts.',
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
