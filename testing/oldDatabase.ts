/** A database as an earlier program left it, from the dump that is kept of it. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import pg from 'pg';

/** Makes the database `name` beside that of `admin`; gives its address. Its form is that of migration 16 of today's. */
export async function oldDatabase(admin: string, name: string): Promise<string> {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  try {
    await client.query(`create database ${name}`);
  } finally {
    await client.end();
  }
  const url = admin.replace(/\/[^/]*$/, `/${name}`);
  const dump = gunzipSync(readFileSync(path.join(process.cwd(), 'testing/databases/database-15.sql.gz')));
  execFileSync('psql', ['-q', '-v', 'ON_ERROR_STOP=1', '-o', '/dev/null', url], { input: dump });
  return url;
}
