/** A shop as one open file, streamed out of one picture of the database: nothing of it is ever whole in memory. */
import { createHash } from 'node:crypto';
import { PassThrough, Readable } from 'node:stream';
import type pg from 'pg';
import yazl from 'yazl';
import { SHOP_FORMAT, type ShopManifest, type ShopSignature } from '#core/format';
import { SHOP_TABLES } from '@/db/shopTables';
import { signatureOf, signingKey } from './proof';

/** Rows that are read at once. */
const FETCH = 500;

/** Columns that stay with the installation: they are ways in, or belong to accounts. */
export const LEFT_OUT: Readonly<Record<string, readonly string[]>> = {
  shops: ['feed_token'],
  people: ['user_id', 'code_hash'],
  photos: ['bytes'],
};
/** Answers of the server that hold a secret address. */
const ROWS_LEFT_OUT: Readonly<Record<string, string>> = { requests: "and kind <> 'follow-up-feed'" };

const SUFFIX = { 'image/jpeg': 'jpg', 'image/png': 'png', 'image/webp': 'webp' } as const;

export type PhotoKind = keyof typeof SUFFIX;

export const MANIFEST = 'manifest.json';
export const SIGNATURE = 'signature.json';
export const tableFile = (name: string) => `tables/${name}.jsonl`;
export const photoFile = (id: string, kind: PhotoKind) => `photos/${id}.${SUFFIX[kind]}`;

export interface Progress {
  /** Rows and photos that are written, and how many there are. */
  readonly done: number;
  readonly of: number;
}

interface Table {
  readonly name: string;
  readonly columns: string;
  readonly order: string;
  readonly where: string;
  readonly rows: number;
}

/**
 * Writes a shop into `out`, signed by this installation. The connection is used alone until the promise ends, in one
 * transaction that reads a single moment and writes nothing. Throws where the shop is not there, the connection is lost, or
 * `signal` says stop; what was written until then is no backup.
 */
export async function writeBackup(
  client: pg.ClientBase,
  shopId: string,
  out: NodeJS.WritableStream,
  {
    madeAt,
    signal,
    onProgress,
  }: { madeAt: Date; signal?: AbortSignal; onProgress?: (now: Progress) => void },
): Promise<ShopManifest> {
  const key = await signingKey(client);
  await client.query('begin isolation level repeatable read read only');
  try {
    const shop = (await client.query('select id, name, town from shops where id = $1', [shopId])).rows[0] as
      | ShopManifest['shop']
      | undefined;
    if (!shop) throw new Error('There is no such shop in this database.');
    const migration = Number(
      (await client.query('select count(*) as of from drizzle.__drizzle_migrations')).rows[0].of,
    );
    const tables = await tablesOf(client, shopId);
    const photos = await photosOf(client, shopId);
    const progress = { done: 0, of: tables.reduce((sum, { rows }) => sum + rows, 0) + photos.length };
    const step = (count: number) => {
      signal?.throwIfAborted();
      progress.done += count;
      onProgress?.({ ...progress });
    };
    const written: ShopManifest['tables'][number][] = [];
    const zip = new yazl.ZipFile();
    const failed = new Promise<never>((_resolve, reject) => {
      zip.on('error', reject);
      out.on('error', reject);
      signal?.addEventListener('abort', () => reject(signal.reason));
    });
    failed.catch(() => undefined);
    const add = (name: string, made: () => AsyncIterable<Buffer>, compress = true) =>
      zip.addReadStreamLazy(name, { compress, mtime: madeAt }, (give) => {
        const source = Readable.from(made());
        // What fails while it is read fails the whole.
        source.on('error', (error) => zip.emit('error', error));
        give(null, source.pipe(new PassThrough()));
      });
    for (const table of tables) add(tableFile(table.name), () => linesOf(client, table, step, written));
    for (const { id, kind } of photos) add(photoFile(id, kind), () => pictureOf(client, id, step), false);
    let manifest: ShopManifest | null = null;
    add(MANIFEST, async function* () {
      manifest = {
        format: SHOP_FORMAT,
        version: key ? 2 : 1,
        migration,
        madeAt: madeAt.toISOString(),
        shop,
        tables: written,
        photos: { count: photos.length, bytes: photos.reduce((sum, { size }) => sum + size, 0) },
      };
      const bytes = Buffer.from(asFile(manifest));
      yield bytes;
      if (key) signature = signatureOf(bytes, key);
    });
    let signature: ShopSignature | null = null;
    if (key)
      add(SIGNATURE, async function* () {
        yield Buffer.from(asFile(signature));
      });
    zip.end();
    const ended = new Promise<void>((resolve) => out.on('finish', resolve));
    zip.outputStream.pipe(out);
    await Promise.race([ended, failed]);
    await client.query('commit');
    return manifest!;
  } catch (error) {
    await client.query('rollback').catch(() => undefined);
    throw error;
  }
}

const asFile = (data: unknown) => `${JSON.stringify(data, null, 2)}\n`;

/** Columns by their table, in the order of the table; `which`: a condition in SQL on the rows of pg_attribute. */
async function columnsOf(client: pg.ClientBase, which: string): Promise<Map<string, string[]>> {
  const { rows } = await client.query<{ table: string; name: string }>(
    `select relname as table, attname as name from pg_attribute join pg_class on pg_class.oid = attrelid
     where relnamespace = 'public'::regnamespace and relkind = 'r' and attnum > 0 and not attisdropped and ${which}
     order by relname, attnum`,
  );
  const found = new Map<string, string[]>();
  for (const { table, name } of rows) found.set(table, [...(found.get(table) ?? []), name]);
  return found;
}

/** The tables of the record that this database has, with their columns as they are now and how they are ordered. */
async function tablesOf(client: pg.ClientBase, shopId: string): Promise<Table[]> {
  const tables: Table[] = [];
  const allColumns = await columnsOf(client, 'true');
  const keys = await columnsOf(
    client,
    'exists (select from pg_index where indrelid = attrelid and indisprimary and attnum = any(indkey))',
  );
  for (const { name, shop, sort } of SHOP_TABLES) {
    if (sort !== 'record') continue;
    const names = allColumns.get(name);
    // An earlier database, backed up before it is brought up, has fewer.
    if (!names) continue;
    const columns = names.filter((one) => !LEFT_OUT[name]?.includes(one)).map((one) => `"${one}"`);
    const more =
      name === 'photos' ? [`encode(sha256(bytes), 'hex') as sha256`, 'octet_length(bytes) as size'] : [];
    const where = `where "${shop}" = '${shopId}' ${ROWS_LEFT_OUT[name] ?? ''}`;
    const counted = await client.query<{ of: string }>(`select count(*) as of from "${name}" ${where}`);
    tables.push({
      name,
      columns: [...columns, ...more].join(', '),
      order: (keys.get(name) ?? []).map((one) => `"${one}"`).join(', '),
      where,
      rows: Number(counted.rows[0]!.of),
    });
  }
  return tables;
}

async function photosOf(client: pg.ClientBase, shopId: string) {
  const { rows } = await client.query<{ id: string; kind: PhotoKind; size: number }>(
    'select id, kind, octet_length(bytes) as size from photos where shop_id = $1 order by id',
    [shopId],
  );
  return rows;
}

/** The lines of a table, read by a cursor; at their end the table is among those that are written. */
async function* linesOf(
  client: pg.ClientBase,
  { name, columns, order, where }: Table,
  step: (count: number) => void,
  written: ShopManifest['tables'][number][],
): AsyncGenerator<Buffer> {
  const hash = createHash('sha256');
  let bytes = 0;
  let count = 0;
  await client.query(
    `declare lines no scroll cursor for
     select row_to_json(whole_row)::text as line from (select ${columns} from "${name}" ${where} order by ${order}) as whole_row`,
  );
  for (;;) {
    const { rows } = await client.query<{ line: string }>(`fetch ${FETCH} from lines`);
    if (rows.length === 0) break;
    const text = Buffer.from(rows.map(({ line }) => `${oneLine(line)}\n`).join(''));
    hash.update(text);
    bytes += text.length;
    count += rows.length;
    step(rows.length);
    yield text;
  }
  await client.query('close lines');
  written.push({ name, rows: count, bytes, sha256: hash.digest('hex') });
}

/** Line ends stand between tokens only, never in a text: blanks say the same. */
function oneLine(json: string): string {
  return json.replace(/[\r\n]+/g, ' ');
}

async function* pictureOf(
  client: pg.ClientBase,
  id: string,
  step: (count: number) => void,
): AsyncGenerator<Buffer> {
  const { rows } = await client.query<{ bytes: Buffer }>('select bytes from photos where id = $1', [id]);
  step(1);
  yield rows[0]!.bytes;
}
