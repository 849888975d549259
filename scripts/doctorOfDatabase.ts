/** The part of `npm run doctor` that looks into the database. Gives as exit code how many things are wrong. */
import { sql } from 'drizzle-orm';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { now } from '../src/clock/now';
import { closeDatabase, database } from '../src/db/client';
import { backupFolder, backupsIn } from '../src/features/backup/server';

const DAY_MS = 86_400_000;
/** A clock that is off by more marks entries wrongly, and makes phones refuse certificates. */
const CLOCK_MS = 5 * 60_000;

let wrong = 0;
function found(fine: boolean, words: string): void {
  if (!fine) wrong += 1;
  console.log(`${fine ? '✓' : '✗'} ${words}`);
}

async function one<T>(query: ReturnType<typeof sql>): Promise<T> {
  return (await database().execute(query)).rows[0] as T;
}

try {
  const { version, moment } = await one<{ version: string; moment: string }>(
    sql`select current_setting('server_version') as version, now()::text as moment`,
  );
  found(true, `The database answers (PostgreSQL ${version})`);
  const off = Math.abs(new Date(moment).getTime() - Date.now());
  found(
    off < CLOCK_MS,
    off < CLOCK_MS
      ? 'Its clock goes with that of this machine'
      : `Its clock and that of this machine are ${Math.round(off / 60_000)} minutes apart. Set them.`,
  );
  const known = readMigrationFiles({ migrationsFolder: 'src/db/migrations' }).length;
  const { of: applied } = await one<{ of: number }>(
    sql`select count(*)::integer as of from drizzle.__drizzle_migrations`,
  );
  found(
    applied === known,
    applied === known
      ? `It has the form that this program knows (${known})`
      : applied < known
        ? `It has form ${applied} and the program knows ${known}. npm start brings it up, after a backup.`
        : `It has form ${applied}, which is newer than this program (${known}). Take the program that wrote it.`,
  );
  if (applied === known) {
    const { latest } = await one<{ latest: string | null }>(
      sql`select max(arrived_at)::text as latest from job_events`,
    );
    const ahead = latest === null ? 0 : new Date(latest).getTime() - now().getTime();
    found(
      ahead < CLOCK_MS,
      ahead < CLOCK_MS
        ? 'The clock of this machine is not behind what was recorded'
        : `The latest entry is of ${latest?.slice(0, 16)}, after what the clock of this machine says. Set the clock.`,
    );
    const { rows } = await database().execute<{ name: string; owners: number; signs: number }>(sql`
      select shops.name, count(*) filter (where role = 'owner' and left_at is null)::integer as owners,
        count(*) filter (where role = 'owner' and left_at is null and user_id is not null)::integer as signs
      from shops left join people on people.shop_id = shops.id where not demo group by shops.id, shops.name order by shops.name`);
    if (rows.length === 0) console.log('– There is no shop of one’s own yet, only the demo.');
    for (const shop of rows) {
      found(
        shop.signs > 0,
        shop.signs > 0
          ? `${shop.name} has an owner who can sign in`
          : `No owner of ${shop.name} can sign in. npm run recover makes a link.`,
      );
    }
    const folder = backupFolder();
    const [last] = folder === null ? [] : await backupsIn(folder);
    if (rows.length > 0) {
      const fresh = last !== undefined && now().getTime() - last.at.getTime() < 2 * DAY_MS;
      found(
        fresh,
        fresh
          ? `The last backup is of ${last.at.toISOString().slice(0, 16).replace('T', ' ')}`
          : last
            ? `The last backup is of ${last.at.toISOString().slice(0, 10)}. One is made each night while the program runs; npm run backup makes one now.`
            : 'There is no backup yet. npm run backup makes one.',
      );
    }
  }
} catch (error) {
  found(false, `The database does not answer as it should: ${(error as Error).message.split('\n')[0]}`);
}
await closeDatabase();
process.exitCode = wrong;
