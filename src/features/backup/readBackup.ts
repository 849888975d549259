/** Opens a backup and looks at all of it: what is damaged, missing or too new is said before anything is written. */
import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import yauzl from 'yauzl';
import {
  type PhotoLine,
  type ShopManifest,
  type ShopSignature,
  validatePhotoLine,
  validateShopManifest,
  validateShopSignature,
  validateWith,
} from '#core/format';
import { SHOP_TABLES } from '@/db/shopTables';
import { isSignatureOf } from './proof';
import { MANIFEST, photoFile, SIGNATURE, tableFile } from './writeBackup';

/** What is wrong with a file, in words for whoever wants it back. */
export class Damaged extends Error {}

/** Largest manifest that is read; what says more is none of ours. */
const MANIFEST_MOST = 4 * 1024 * 1024;

const SIGNATURE_MOST = 4096;

/** Longest line that is read, bytes: a circuit, a box or a plan has at most four million. */
const LINE_MOST = 32 * 1024 * 1024;
const NEWLINE = 10;

export interface Backup {
  readonly manifest: ShopManifest;
  /** The key that it is signed with, base64; null where it is not signed. Anybody can sign with a key of theirs. */
  readonly signedBy: string | null;
  /** Photos by their ids, as their lines say. */
  readonly photos: ReadonlyMap<string, PhotoLine>;
  /** Lines of a table, in batches. */
  lines(table: string, most: number): AsyncGenerator<readonly string[]>;
  picture(photo: PhotoLine): Promise<Buffer>;
  close(): void;
}

/**
 * Opens a backup and checks it whole: its manifest, that every file is there and no other, and each by its checksum.
 * `migrations`: how many this program knows. Throws `Damaged` with what is wrong.
 */
export async function openBackup(
  path: string,
  {
    migrations,
    signal,
    onProgress,
  }: { migrations: number; signal?: AbortSignal; onProgress?: (done: number, of: number) => void },
): Promise<Backup> {
  const zip = await opened(path);
  try {
    const entries = await entriesOf(zip);
    const { manifest, bytes: asSigned } = await manifestOf(zip, entries, migrations);
    const expected = new Set([MANIFEST]);
    const signedBy = manifest.version === 1 ? null : await signerOf(zip, entries, asSigned);
    if (signedBy !== null) expected.add(SIGNATURE);
    const photos = new Map<string, PhotoLine>();
    const bytes = manifest.tables.reduce((sum, one) => sum + one.bytes, 0) + manifest.photos.bytes;
    let done = 0;
    const read = (chunk: Buffer) => {
      signal?.throwIfAborted();
      done += chunk.length;
      onProgress?.(Math.min(done, bytes), bytes);
    };
    for (const table of manifest.tables) {
      const name = tableFile(table.name);
      expected.add(name);
      const found = await measured(zip, entryOf(entries, name), table.bytes, read);
      if (found.sha256 !== table.sha256 || found.bytes !== table.bytes) {
        throw new Damaged(`${name} is damaged: it does not say what it said when the backup was made.`);
      }
    }
    const lines = (table: string, most: number) => linesOf(zip, entryOf(entries, tableFile(table)), most);
    if (manifest.tables.some(({ name }) => name === 'photos')) {
      for await (const batch of lines('photos', 500)) {
        for (const line of batch) {
          const checked = validateWith<PhotoLine>(validatePhotoLine, parsed(line, 'tables/photos.jsonl'));
          if (!checked.ok)
            throw new Damaged(
              `tables/photos.jsonl holds a line that is no photo: ${checked.problems[0]?.message}`,
            );
          photos.set(checked.value.id, checked.value);
        }
      }
    }
    for (const photo of photos.values()) {
      const name = photoFile(photo.id, photo.kind);
      expected.add(name);
      const found = await measured(zip, entryOf(entries, name), photo.size, read);
      if (found.sha256 !== photo.sha256) throw new Damaged(`The picture ${name} is damaged.`);
    }
    if (photos.size !== manifest.photos.count) {
      throw new Damaged(`The backup says ${manifest.photos.count} photos and lists ${photos.size}.`);
    }
    for (const name of entries.keys()) {
      if (!expected.has(name))
        throw new Damaged(`The backup holds a file that does not belong to it: ${name}.`);
    }
    return {
      manifest,
      signedBy,
      photos,
      lines,
      picture: (photo) => whole(zip, entryOf(entries, photoFile(photo.id, photo.kind)), photo.size),
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}

function opened(path: string): Promise<yauzl.ZipFile> {
  return new Promise((resolve, reject) => {
    yauzl.open(path, { lazyEntries: true, autoClose: false, validateEntrySizes: true }, (error, zip) => {
      if (error) {
        const missing = (error as NodeJS.ErrnoException).code === 'ENOENT';
        reject(
          new Damaged(
            missing
              ? `There is no file ${path}.`
              : `This is no backup of a shop, or its end is missing: the file is no whole zip (${error.message}).`,
          ),
        );
      } else resolve(zip);
    });
  });
}

function entriesOf(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, yauzl.Entry>();
    zip.on('error', (error: Error) =>
      reject(new Damaged(`The list of the files in it is damaged (${error.message}).`)),
    );
    zip.on('entry', (entry: yauzl.Entry) => {
      if (entries.has(entry.fileName)) {
        reject(new Damaged(`The backup holds ${entry.fileName} twice.`));
        return;
      }
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.on('end', () => resolve(entries));
    zip.readEntry();
  });
}

function entryOf(entries: ReadonlyMap<string, yauzl.Entry>, name: string): yauzl.Entry {
  const entry = entries.get(name);
  if (!entry) throw new Damaged(`${name} is missing in the backup.`);
  return entry;
}

async function manifestOf(
  zip: yauzl.ZipFile,
  entries: ReadonlyMap<string, yauzl.Entry>,
  migrations: number,
): Promise<{ manifest: ShopManifest; bytes: Buffer }> {
  if (!entries.has(MANIFEST)) {
    throw new Damaged(
      'This is no backup of a shop: it holds no manifest.json. A backup that was broken off has none.',
    );
  }
  const text = await whole(zip, entryOf(entries, MANIFEST), MANIFEST_MOST);
  const data = parsed(text.toString('utf8'), MANIFEST) as { version?: unknown };
  if (typeof data?.version === 'number' && data.version > 2) {
    throw new Damaged(
      `The backup was written by a newer program (version ${data.version}). Update this one first.`,
    );
  }
  const checked = validateWith<ShopManifest>(validateShopManifest, data);
  if (!checked.ok) {
    throw new Damaged(
      `manifest.json is damaged: ${checked.problems.map(({ path, message }) => `${path} ${message}`).join(' ')}`,
    );
  }
  const manifest = checked.value;
  if (manifest.migration > migrations) {
    throw new Damaged(
      `The backup was written by a newer program: its tables have form ${manifest.migration}, this program knows up to ${migrations}. Update this one first.`,
    );
  }
  const known = SHOP_TABLES.filter(({ sort }) => sort === 'record').map(({ name }) => name);
  const strange = manifest.tables.find(({ name }) => !known.includes(name));
  if (strange)
    throw new Damaged(`The backup holds a table that this program does not know: ${strange.name}.`);
  const names = manifest.tables.map(({ name }) => name);
  if (new Set(names).size !== names.length) throw new Damaged('manifest.json names a table twice.');
  for (const needed of ['shops', 'people']) {
    if (!names.includes(needed)) throw new Damaged(`The backup has no table ${needed}.`);
  }
  return { manifest, bytes: text };
}

/** Who has signed the manifest. */
async function signerOf(
  zip: yauzl.ZipFile,
  entries: ReadonlyMap<string, yauzl.Entry>,
  manifest: Buffer,
): Promise<string> {
  const text = await whole(zip, entryOf(entries, SIGNATURE), SIGNATURE_MOST);
  const checked = validateWith<ShopSignature>(
    validateShopSignature,
    parsed(text.toString('utf8'), SIGNATURE),
  );
  if (!checked.ok) throw new Damaged(`${SIGNATURE} is damaged: ${checked.problems[0]?.message}`);
  if (!isSignatureOf(manifest, checked.value))
    throw new Damaged(`The signature does not match: ${MANIFEST} was changed after signing.`);
  return checked.value.publicKey;
}

export function parsed(text: string, where: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new Damaged(`${where} is damaged: it holds something that is no JSON.`);
  }
}

function streamOf(zip: yauzl.ZipFile, entry: yauzl.Entry): Promise<Readable> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error) reject(new Damaged(`${entry.fileName} is damaged (${error.message}).`));
      else resolve(stream);
    });
  });
}

/** Its checksum and length; no more is read than there may be. */
async function measured(zip: yauzl.ZipFile, entry: yauzl.Entry, most: number, read: (chunk: Buffer) => void) {
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const chunk of chunksOf(zip, entry, most)) {
    hash.update(chunk);
    bytes += chunk.length;
    read(chunk);
  }
  return { sha256: hash.digest('hex'), bytes };
}

async function whole(zip: yauzl.ZipFile, entry: yauzl.Entry, most: number): Promise<Buffer> {
  const chunks: Buffer[] = [];
  for await (const chunk of chunksOf(zip, entry, most)) chunks.push(chunk);
  return Buffer.concat(chunks);
}

async function* chunksOf(zip: yauzl.ZipFile, entry: yauzl.Entry, most: number): AsyncGenerator<Buffer> {
  let bytes = 0;
  try {
    for await (const chunk of (await streamOf(zip, entry)) as AsyncIterable<Buffer>) {
      bytes += chunk.length;
      if (bytes > most) throw new Damaged(`${entry.fileName} is damaged: it is longer than it was.`);
      yield chunk;
    }
  } catch (error) {
    if (error instanceof Damaged) throw error;
    throw new Damaged(`${entry.fileName} is damaged (${(error as Error).message}).`);
  }
}

async function* linesOf(
  zip: yauzl.ZipFile,
  entry: yauzl.Entry,
  most: number,
): AsyncGenerator<readonly string[]> {
  let batch: string[] = [];
  for await (const line of everyLine(zip, entry)) {
    if (line === '') continue;
    batch.push(line);
    if (batch.length >= most) {
      yield batch;
      batch = [];
    }
  }
  if (batch.length > 0) yield batch;
}

/** Line by line, none of them longer than a row can be: a small zip can hold one that fills the memory. */
async function* everyLine(zip: yauzl.ZipFile, entry: yauzl.Entry): AsyncGenerator<string> {
  let begun: Buffer[] = [];
  let length = 0;
  const take = (part: Buffer) => {
    begun.push(part);
    length += part.length;
    if (length > LINE_MOST)
      throw new Damaged(`${entry.fileName} holds a line that is longer than any row is.`);
  };
  for await (const chunk of chunksOf(zip, entry, Number.POSITIVE_INFINITY)) {
    let from = 0;
    for (let end = chunk.indexOf(NEWLINE); end !== -1; end = chunk.indexOf(NEWLINE, from)) {
      take(chunk.subarray(from, end));
      yield Buffer.concat(begun).toString('utf8');
      begun = [];
      length = 0;
      from = end + 1;
    }
    take(chunk.subarray(from));
  }
  yield Buffer.concat(begun).toString('utf8');
}
