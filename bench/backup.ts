/** A shop with many photos into a backup and back: how much memory that takes against how much it holds. */
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { ensurePackages, POSTGRES } from '../scripts/lib/setUp.mjs';
import { bin, run } from '../scripts/lib/shell.mjs';
import { openTestBed } from '../scripts/lib/testBed.mjs';
import { closeDatabase, database } from '../src/db/client';
import { backUpTo, openBackup, restoreBackup } from '../src/features/backup/server';

const MEGABYTE = 1024 * 1024;
/** Pictures of as many bytes as one may have, which no packing makes smaller. */
const PHOTOS = 500;
const PHOTO_BYTES = 4 * MEGABYTE - 1024;

/** The most memory that this process has while `work` runs, beyond what it has at its begin. */
async function memoryOf(work: () => Promise<unknown>): Promise<{ more: number; seconds: number }> {
  const before = process.memoryUsage().rss;
  let most = before;
  const watch = setInterval(() => {
    most = Math.max(most, process.memoryUsage().rss);
  }, 20);
  const began = performance.now();
  await work();
  clearInterval(watch);
  return { more: (most - before) / MEGABYTE, seconds: (performance.now() - began) / 1000 };
}

export async function benchBackup(): Promise<void> {
  ensurePackages([POSTGRES]);
  const bed = await openTestBed();
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-bench-'));
  const named = (name: string) => bed.adminUrl.replace(/\/[^/]*$/, `/${name}`);
  const use = (name: string, ...flags: string[]) => {
    process.env.DATABASE_URL = named(name);
    run(bin('tsx'), ['scripts/migrate.ts', ...flags], { env: process.env });
  };
  try {
    use('bench_backup', '--demo');
    await database().execute(sql`create extension if not exists pgcrypto`);
    for (let made = 0; made < PHOTOS; made += 10) {
      await database().execute(sql`
        insert into photos (id, shop_id, job_id, person_id, kind, bytes)
        select gen_random_uuid(), shop_id, id, opened_by, 'image/jpeg',
          (select string_agg(gen_random_bytes(1024), '') from generate_series(1, ${PHOTO_BYTES / 1024}::integer + 0 * n))
        from (select * from jobs limit 1) as job, generate_series(1, 10) as n`);
    }
    const { rows } = await database().execute<{ id: string; name: string }>(sql`select id, name from shops`);
    let file = '';
    const out = await memoryOf(async () => {
      file = await backUpTo(folder, rows[0]!, 'asked');
    });
    await closeDatabase();
    use('bench_restored');
    const migrations = readMigrationFiles({ migrationsFolder: 'src/db/migrations' }).length;
    const back = await memoryOf(async () => {
      const backup = await openBackup(file, { migrations });
      await restoreBackup(backup);
      backup.close();
    });
    const size = statSync(file).size / MEGABYTE;
    const told = ({ more, seconds }: { more: number; seconds: number }) =>
      `${more.toFixed(0)} MB more memory (${((100 * more) / size).toFixed(0)} % of the file), ${seconds.toFixed(0)} s`;
    console.log(
      `a shop of ${PHOTOS} photos, ${size.toFixed(0)} MB as a backup: written with ${told(out)}; brought back with ${told(back)}`,
    );
  } finally {
    await closeDatabase();
    rmSync(folder, { recursive: true, force: true });
    bed.close(false);
  }
}
