/** Makes the database when it is missing, brings it to the newest migration, and with --demo fills an empty one. */
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { closeDatabase, connections } from '../src/db/client';
import { bringDemo } from '../src/features/demo/server';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
/** Any number will do, as long as every start uses the same. */
const MIGRATION_LOCK = 4012_2026;
const known = readMigrationFiles({ migrationsFolder: path.join(root, 'src/db/migrations') }).length;

async function makeDatabase(url: URL): Promise<void> {
  const name = decodeURIComponent(url.pathname.slice(1));
  const probe = new pg.Client({ connectionString: url.href });
  try {
    await probe.connect();
    await probe.end();
    return;
  } catch (error) {
    if ((error as { code?: string }).code !== '3D000') throw error;
  }
  const admin = new URL(url);
  admin.pathname = '/postgres';
  const client = new pg.Client({ connectionString: admin.href });
  await client.connect();
  try {
    await client.query(`CREATE DATABASE ${client.escapeIdentifier(name)}`);
  } catch (error) {
    // Another start made it in the meantime.
    if ((error as { code?: string }).code !== '42P04') throw error;
  } finally {
    await client.end();
  }
}

async function appliedMigrations(client: pg.Client): Promise<number> {
  const known = await client.query("select to_regclass('drizzle.__drizzle_migrations') as name");
  if (known.rows[0]?.name === null) return 0;
  return Number((await client.query('select count(*) as of from drizzle.__drizzle_migrations')).rows[0].of);
}

/** Before the form of the database changes, every shop is written down as it is. Without that nothing is changed. */
async function backUpBefore(applied: number): Promise<void> {
  const { backUpTo, backupFolder } = await import('../src/features/backup/server');
  const folder = backupFolder();
  if (folder === null) return;
  // As an earlier database has them, which lacks columns of this program.
  const { rows } = await connections().query<{ id: string; name: string }>(
    'select id, name from shops order by name',
  );
  for (const shop of rows) await backUpTo(folder, shop, 'migration');
  if (rows.length > 0) console.log(`The shops are backed up as they were at form ${applied}, in ${folder}.`);
}

async function main(): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set.');
  await makeDatabase(new URL(url));
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query('SELECT pg_advisory_lock($1)', [MIGRATION_LOCK]);
    const before = await appliedMigrations(client);
    if (before > 0 && before < known) await backUpBefore(before);
    await migrate(drizzle(client), { migrationsFolder: path.join(root, 'src/db/migrations') });
    if (before > 0 && (await appliedMigrations(client)) > before) {
      // Read only where it is needed, as every start comes by here.
      const { rebuildProjections } = await import('../src/db/projections');
      await rebuildProjections();
    }
    if (process.argv.includes('--demo')) console.log(await bringDemo(path.join(root, 'demo')));
  } finally {
    await client.end();
    await closeDatabase();
  }
}

await main();
