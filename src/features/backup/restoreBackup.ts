/** Brings a backup back, all of it or nothing: as the shop that it was, or as a new one beside others. */
import { createHash, randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { UUID_PATTERN } from '#core/format';
import { now } from '@/clock/now';
import type { Transaction } from '@/db/client';
import { dataRefusal } from '@/db/errors';
import { rebuildProjections } from '@/db/projections';
import { people, shops } from '@/db/schema';
import { SHOP_TABLES } from '@/db/shopTables';
import { transaction } from '@/db/transaction';
import { dateWords } from '@/ui/dates';
import { codeOf, isSameCode, ownCode } from './proof';
import { type Backup, Damaged, parsed } from './readBackup';
import { checkPhoto, checkRow } from './soundRow';
import { upgradedLine } from './upgradeLine';
import { LEFT_OUT } from './writeBackup';

/** Rows that are written at once. */
const BATCH = 500;

/** The database has this shop already, and nobody said that it is to stand beside it. */
export class AlreadyHere extends Error {}

export interface Restored {
  readonly shopId: string;
  readonly shopName: string;
  readonly rows: number;
  readonly photos: number;
  /** Whether the backup is proved to be of this shop's installation, so that entries kept their authors. */
  readonly proved: boolean;
  /** Owners of the shop, none of whom can sign in until a link was made. */
  readonly owners: readonly { readonly id: string; readonly name: string }[];
}

/**
 * Writes a backup that was opened, and so found whole, into this database in one transaction. `beside`: under ids of its
 * own, so that it stands beside the shop that it came from. `code`: of the key that its installation signs with; not needed
 * where that is this one. Entries of a backup that is not proved so stand under the restore, each with the name that the
 * file gives: whoever wrote the file may have written any name. Throws and leaves nothing where it cannot be done.
 */
export async function restoreBackup(
  backup: Backup,
  {
    beside = false,
    code,
    signal,
    onProgress,
  }: {
    beside?: boolean;
    code?: string;
    signal?: AbortSignal;
    onProgress?: (done: number, of: number) => void;
  } = {},
): Promise<Restored> {
  const { manifest } = backup;
  const of = manifest.tables.reduce((sum, { rows }) => sum + rows, 0) + manifest.photos.count;
  let done: number;
  const step = (count: number) => {
    signal?.throwIfAborted();
    done += count;
    onProgress?.(done, of);
  };
  const proved = await isProved(backup, code);
  const ids = beside ? await newIds(backup) : null;
  const shopId = ids?.(manifest.shop.id) ?? manifest.shop.id;
  return transaction(async (tx) => {
    done = 0;
    const [there] = await tx.select({ name: shops.name }).from(shops).where(eq(shops.id, shopId));
    if (there) {
      throw new AlreadyHere(
        `The shop ${there.name} is in this database. To have the backup beside it as a shop of its own, say --beside.`,
      );
    }
    const unproved = proved ? null : new Unproved();
    for (const { name, shop } of SHOP_TABLES) {
      const table = manifest.tables.find((one) => one.name === name);
      if (!table) continue;
      const columns = await columnsOf(tx, name);
      let rows = 0;
      let fields: string | null = null;
      for await (const lines of backup.lines(name, BATCH)) {
        const made = lines.map((line) => {
          const text = upgradedLine(manifest.migration, name, line);
          const row = parsed(text, `tables/${name}.jsonl`);
          if (row === null || typeof row !== 'object' || Array.isArray(row)) {
            throw new Damaged(`tables/${name}.jsonl holds a line that is no row.`);
          }
          const keys = Object.keys(row);
          fields ??= keys.join();
          if (keys.join() !== fields)
            throw new Damaged(`tables/${name}.jsonl holds a line with other fields.`);
          // Right by its checksum, and written by somebody else: no row gets into another shop, or to an account.
          if ((row as Record<string, unknown>)[shop] !== manifest.shop.id)
            throw new Damaged(`tables/${name}.jsonl holds a row of another shop.`);
          const way = keys.find((key) => LEFT_OUT[name]?.includes(key));
          if (way) throw new Damaged(`tables/${name}.jsonl holds a field that no backup has: ${way}.`);
          checkRow(name, row as Record<string, unknown>);
          return unproved?.line(name, row as Record<string, unknown>) ?? { keys, text };
        });
        if (name === 'photos') await writePhotos(tx, backup, made, columns, ids, step);
        else await writeRows(tx, name, made, columns, ids);
        rows += lines.length;
        if (name !== 'photos') step(lines.length);
      }
      if (rows !== table.rows)
        throw new Damaged(`tables/${name}.jsonl has ${rows} lines and should have ${table.rows}.`);
      if (name === 'people') await unproved?.standIn(tx, shopId);
    }
    if (beside) await standBeside(tx, shopId);
    await rebuildProjections({ tx, shopId });
    const owners = await tx
      .select({ id: people.id, name: people.name })
      .from(people)
      .where(sql`${people.shopId} = ${shopId} and ${people.role} = 'owner' and ${people.leftAt} is null`);
    return {
      shopId,
      shopName: manifest.shop.name,
      rows: of - manifest.photos.count,
      photos: manifest.photos.count,
      proved,
      owners,
    };
  });
}

interface Line {
  readonly keys: readonly string[];
  readonly text: string;
}

/** Whether a backup is signed with the key of this installation, or with that of a code. */
async function isProved({ signedBy }: Backup, code: string | undefined): Promise<boolean> {
  const signed = signedBy === null ? null : codeOf(signedBy);
  if (code !== undefined && (signed === null || !isSameCode(signed, code))) {
    throw new Damaged(
      signed === null
        ? 'The backup is not signed, so the key cannot verify it. Restore it without the key: its entries are then shown as imported from a file.'
        : 'The backup is signed with a different key.',
    );
  }
  return code !== undefined || (signed !== null && signed === (await ownCode()));
}

/** Whose the entries of a backup are that nobody has proved: of the restore, each with the name that the file gives. */
class Unproved {
  private readonly id = randomUUID();
  private readonly names = new Map<unknown, unknown>();

  /** The line as it is written; null where nothing of it changes. */
  line(table: string, row: Record<string, unknown>): Line | null {
    if (table === 'people') this.names.set(row.id, row.name);
    if (table !== 'job_events') return null;
    const changed = {
      ...row,
      person_id: this.id,
      person_name: row.person_name ?? this.names.get(row.person_id) ?? 'somebody',
    };
    return { keys: Object.keys(changed), text: JSON.stringify(changed) };
  }

  /** Under whom they stand: nobody who works in the shop. */
  async standIn(tx: Transaction, shopId: string): Promise<void> {
    const moment = now().toISOString();
    await tx.insert(people).values({
      id: this.id,
      shopId,
      name: `the restore of ${dateWords(moment, 'long')}`,
      role: 'technician',
      leftAt: moment,
    });
  }
}

/** A shop beside the one that it came from says so by its name, and is no demo. */
async function standBeside(tx: Transaction, shopId: string): Promise<void> {
  await tx
    .update(shops)
    .set({ demo: false, name: sql`${shops.name} || ' (from a backup)'` })
    .where(eq(shops.id, shopId));
}

async function columnsOf(tx: Transaction, table: string): Promise<readonly string[]> {
  const { rows } = await tx.execute<{ column_name: string }>(sql`
    select column_name from information_schema.columns where table_schema = 'public' and table_name = ${table}`);
  return rows.map((one) => one.column_name);
}

/** Writes rows with the columns that their lines have; those that are newer than the backup take what stands for nothing. */
async function writeRows(
  tx: Transaction,
  table: string,
  lines: readonly Line[],
  columns: readonly string[],
  ids: ((id: string) => string) | null,
): Promise<void> {
  const given = lines[0]?.keys ?? [];
  const strange = given.find((key) => !columns.includes(key));
  if (strange)
    throw new Damaged(`tables/${table}.jsonl holds a field that this program does not know: ${strange}.`);
  const names = sql.join(
    given.map((key) => sql.identifier(key)),
    sql`, `,
  );
  const rows = `[${lines.map(({ text }) => (ids ? withNewIds(text, ids) : text)).join(',')}]`;
  try {
    await tx.execute(sql`
      insert into ${sql.identifier(table)} (${names})
      select ${names} from json_populate_recordset(null::${sql.identifier(table)}, ${rows}::json)`);
  } catch (error) {
    const reason = dataRefusal(error);
    if (reason === null) throw error;
    throw new Damaged(`tables/${table}.jsonl holds a row that cannot be kept. ${reason}`);
  }
}

async function writePhotos(
  tx: Transaction,
  backup: Backup,
  lines: readonly Line[],
  columns: readonly string[],
  ids: ((id: string) => string) | null,
  step: (count: number) => void,
): Promise<void> {
  for (const line of lines) {
    const { sha256, size, ...row } = JSON.parse(line.text) as Record<string, unknown>;
    const photo = backup.photos.get(String(row.id));
    if (!photo || photo.sha256 !== sha256 || photo.size !== size) {
      throw new Damaged(`The picture of the line ${String(row.id)} is not the one that was looked at.`);
    }
    const bytes = await backup.picture(photo);
    checkPhoto(photo.id, photo.kind, bytes);
    const text = JSON.stringify({ ...row, bytes: `\\x${bytes.toString('hex')}` });
    await writeRows(tx, 'photos', [{ keys: [...Object.keys(row), 'bytes'], text }], columns, ids);
    step(1);
  }
}

const UUID = new RegExp(UUID_PATTERN.replace(/^\^|\$$/g, ''), 'gi');

function withNewIds(text: string, ids: (id: string) => string): string {
  return text.replace(UUID, (id) => ids(id));
}

/**
 * New ids for all rows of a backup, and for those alone: the same for the same, wherever it is named. An id that a person
 * typed into a text, and that is none of a row, stays.
 */
async function newIds(backup: Backup): Promise<(id: string) => string> {
  const salt = randomUUID();
  const known = new Set<string>([backup.manifest.shop.id]);
  for (const { name } of backup.manifest.tables) {
    for await (const lines of backup.lines(name, BATCH)) {
      for (const line of lines) {
        const { id } = parsed(line, `tables/${name}.jsonl`) as { id?: unknown };
        if (typeof id === 'string') known.add(id.toLowerCase());
      }
    }
  }
  return (id) => (known.has(id.toLowerCase()) ? renamed(salt, id.toLowerCase()) : id);
}

/** An id of version 8 (RFC 9562): made of the old one and the salt of this restore. */
function renamed(salt: string, id: string): string {
  const hex = createHash('sha256').update(`${salt} ${id}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
