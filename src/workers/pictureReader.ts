/** Pictures made clean in a thread beside the server's own (`picture.thread.ts`, bundled before build and test). */
import path from 'node:path';
import { Piscina } from 'piscina';
import type { CleanPicture } from './cleanPicture';

/** A picture that takes longer was made to. */
const LONGEST_MS = 20_000;
/** So many wait, each with its bytes; whoever comes then sends again. */
const MOST_WAITING = 20;

const holder = globalThis as unknown as { everyTracePictures?: Piscina };

function readers(): Piscina {
  holder.everyTracePictures ??= new Piscina({
    filename: path.join(process.cwd(), 'core/format/generated/picture.thread.mjs'),
    minThreads: 0,
    maxThreads: 1,
    maxQueue: MOST_WAITING,
    idleTimeout: 30_000,
  });
  return holder.everyTracePictures;
}

/** The clean picture, or why it is refused; null where so many wait that this one has to come again. */
export async function readPicture(sent: Uint8Array): Promise<CleanPicture | null> {
  const pool = readers();
  if (pool.queueSize >= MOST_WAITING) return null;
  try {
    const clean: CleanPicture = await pool.run(sent, { signal: AbortSignal.timeout(LONGEST_MS) });
    return clean.ok ? { ...clean, bytes: Buffer.from(clean.bytes) } : clean;
  } catch (error) {
    if (error instanceof Error && error.name === 'AbortError') {
      return {
        ok: false,
        message: 'The picture takes too long to read. Take it again, or send it in a smaller size.',
      };
    }
    throw error;
  }
}

/** Ends the thread; the next picture starts one again. */
export async function closePictures(): Promise<void> {
  await holder.everyTracePictures?.destroy();
  delete holder.everyTracePictures;
}
