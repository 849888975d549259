/** Where backups of this installation lie: made under another name, called by their own once they are whole, and only so many kept. */
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { asc, eq } from 'drizzle-orm';
import { now } from '@/clock/now';
import { connections, database } from '@/db/client';
import { shops } from '@/db/schema';
import { plainName } from '@/ui/fileResponse';
import { type Progress, writeBackup } from './writeBackup';

/** So many of each sort are kept for each shop; the oldest go. */
const KEPT = { nightly: 14, migration: 5 } as const;
export type Sort = keyof typeof KEPT | 'asked';

const UNFINISHED = '.part';

/** The folder of this installation; null where nobody has named one. */
export function backupFolder(): string | null {
  return process.env.EVERY_TRACE_BACKUPS || null;
}

export interface BackupFile {
  readonly file: string;
  readonly bytes: number;
  readonly at: Date;
}

/** The backups that lie in a folder, the newest first; nothing where there is none. */
export async function backupsIn(folder: string): Promise<readonly BackupFile[]> {
  const names = await readdir(folder).catch(() => []);
  const files = await Promise.all(
    names
      .filter((name) => name.endsWith('.zip'))
      .map(async (name) => {
        const file = path.join(folder, name);
        const { size, mtime } = await stat(file);
        return { file, bytes: size, at: mtime };
      }),
  );
  return files.sort((one, other) => other.at.getTime() - one.at.getTime());
}

/** What a backup is called: shop, moment, and for what it was made. */
export function backupName(shop: { readonly id: string; readonly name: string }, sort: Sort): string {
  const moment = now().toISOString().slice(0, 19).replace(/[:T]/g, '-');
  return `${plainName(shop.name, shop.id.slice(0, 8), sort, moment)}.zip`;
}

/** All shops of the database by name; without the demo where it is not asked for. */
export function shopsToBackUp(withDemo: boolean) {
  return database()
    .select({ id: shops.id, name: shops.name })
    .from(shops)
    .where(withDemo ? undefined : eq(shops.demo, false))
    .orderBy(asc(shops.name));
}

/** Writes one shop into the folder; gives the file. What was broken off leaves nothing that looks like a backup. */
export async function backUpTo(
  folder: string,
  shop: { readonly id: string; readonly name: string },
  sort: Sort,
  options: { signal?: AbortSignal; onProgress?: (now: Progress) => void } = {},
): Promise<string> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const file = path.join(folder, backupName(shop, sort));
  const unfinished = `${file}${UNFINISHED}`;
  const client = await connections().connect();
  try {
    const out = createWriteStream(unfinished, { mode: 0o600 });
    await writeBackup(client, shop.id, out, { madeAt: now(), ...options });
    await rename(unfinished, file);
  } catch (error) {
    await rm(unfinished, { force: true });
    throw error;
  } finally {
    client.release();
  }
  if (sort !== 'asked') await letOldOnesGo(folder, shop, sort);
  return file;
}

async function letOldOnesGo(
  folder: string,
  shop: { readonly id: string },
  sort: keyof typeof KEPT,
): Promise<void> {
  const own = (await backupsIn(folder)).filter(({ file }) =>
    path.basename(file).includes(`${shop.id.slice(0, 8)}-${sort}-`),
  );
  for (const { file } of own.slice(KEPT[sort])) await rm(file, { force: true });
}
