/**
 * A backup as a download. It is written to a file first, so that a connection to the database is held for as long as the
 * shop takes to be read and not for as long as somebody takes to fetch it. One is written at a time for a shop, and two over
 * all. The file stays for a while: a download that was cut off goes on where it stopped.
 */
import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { type FileHandle, mkdir, open, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { now } from '@/clock/now';
import { connections } from '@/db/client';
import { NotNow } from '@/http/notNow';
import { writeBackup } from './writeBackup';

const MOST_AT_ONCE = 2;
const AGAIN_SECONDS = 20;
/** Nobody who fetches takes nothing for so long. */
const STALLED_MS = 30_000;
/** So long a download can be taken up again. */
const KEPT_MS = 15 * 60_000;
const PIECE = 256 * 1024;

interface Written {
  readonly file: string;
  /** Of these very bytes, as `ETag` has it. */
  readonly tag: string;
  readonly bytes: number;
  readonly until: number;
}

interface Downloads {
  readonly writing: Set<string>;
  readonly kept: Map<string, Written>;
}

// One for the process; kept across reloads of the development server.
const holder = globalThis as unknown as { everyTraceDownloads?: Downloads };

function downloads(): Downloads {
  holder.everyTraceDownloads ??= { writing: new Set(), kept: new Map() };
  return holder.everyTraceDownloads;
}

const folder = () => path.join(tmpdir(), 'every-trace-downloads');

export interface Fetched {
  readonly body: ReadableStream<Uint8Array>;
  readonly tag: string;
  /** Of the whole file, and where the body begins in it. */
  readonly bytes: number;
  readonly from: number;
}

interface Asked {
  readonly signal: AbortSignal;
  /** Headers `Range` and `If-Range`. */
  readonly range?: string | null;
  readonly ifRange?: string | null;
  readonly stalledMs?: number;
}

/**
 * The backup of a shop: the rest of the one that was begun, where that is still there, or a new one. Throws `NotNow` while
 * another is written for this shop, or two are for others.
 */
export async function backupDownload(shopId: string, asked: Asked): Promise<Fetched> {
  const kept = downloads().kept.get(shopId);
  const from = Number(/^bytes=(\d+)-$/.exec(asked.range ?? '')?.[1] ?? 0);
  const goesOn =
    kept !== undefined &&
    from > 0 &&
    from < kept.bytes &&
    asked.ifRange === kept.tag &&
    kept.until > Date.now();
  const written = goesOn ? kept : await writeAnew(shopId, asked.signal);
  const handle = await open(written.file);
  const begin = goesOn ? from : 0;
  return {
    body: pieces(handle, begin, asked),
    tag: written.tag,
    bytes: written.bytes,
    from: begin,
  };
}

async function writeAnew(shopId: string, signal: AbortSignal): Promise<Written> {
  const { writing, kept } = downloads();
  if (writing.has(shopId)) {
    throw new NotNow(
      'A backup of this workshop is being written already. Ask again in a moment.',
      AGAIN_SECONDS,
    );
  }
  if (writing.size >= MOST_AT_ONCE) {
    throw new NotNow(
      'Two backups of other workshops are being written. Ask again in a moment.',
      AGAIN_SECONDS,
    );
  }
  writing.add(shopId);
  const tag = `"${randomUUID()}"`;
  const file = path.join(folder(), `${shopId}-${tag.slice(1, -1)}.zip`);
  try {
    await mkdir(folder(), { recursive: true, mode: 0o700 });
    await removeOld();
    const client = await connections().connect();
    try {
      const out = createWriteStream(file, { mode: 0o600 });
      await writeBackup(client, shopId, out, { madeAt: now(), signal });
    } finally {
      client.release();
    }
    const before = kept.get(shopId);
    // Whoever still reads it reads on: an open file outlives its name.
    if (before) await rm(before.file, { force: true });
    const { size } = await stat(file);
    const made = { file, tag, bytes: size, until: Date.now() + KEPT_MS };
    kept.set(shopId, made);
    return made;
  } catch (error) {
    await rm(file, { force: true });
    throw error;
  } finally {
    writing.delete(shopId);
  }
}

/** Files of before: of this process past their time, and of one that is gone. */
async function removeOld(): Promise<void> {
  const { kept } = downloads();
  for (const [shop, { until }] of kept) if (until <= Date.now()) kept.delete(shop);
  const wanted = new Set([...kept.values()].map(({ file }) => path.basename(file)));
  for (const name of await readdir(folder())) {
    const file = path.join(folder(), name);
    const { mtimeMs } = await stat(file).catch(() => ({ mtimeMs: Number.POSITIVE_INFINITY }));
    if (!wanted.has(name) && mtimeMs < Date.now() - KEPT_MS) await rm(file, { force: true });
  }
}

/** The file from a place on, as it is taken; it ends with an error where nobody takes anything for too long. */
function pieces(handle: FileHandle, from: number, { signal, stalledMs = STALLED_MS }: Asked) {
  let at = from;
  let stalled: NodeJS.Timeout | undefined;
  const close = () => {
    clearTimeout(stalled);
    signal.removeEventListener('abort', close);
    void handle.close();
  };
  signal.addEventListener('abort', close, { once: true });
  return new ReadableStream<Uint8Array>({
    async pull(controller) {
      clearTimeout(stalled);
      const piece = Buffer.allocUnsafe(PIECE);
      const { bytesRead } = await handle.read(piece, 0, PIECE, at);
      if (bytesRead === 0) {
        close();
        controller.close();
        return;
      }
      at += bytesRead;
      controller.enqueue(piece.subarray(0, bytesRead));
      stalled = setTimeout(() => {
        close();
        controller.error(new Error('Nobody takes what is sent.'));
      }, stalledMs);
    },
    cancel: close,
  });
}

/** Removes what is kept. */
export async function closeDownloads(): Promise<void> {
  for (const { file } of downloads().kept.values()) await rm(file, { force: true });
  downloads().kept.clear();
}
