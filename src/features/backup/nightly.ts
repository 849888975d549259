/** A backup of every shop each night, made by one of the processes that run on the database. */
import { sql } from 'drizzle-orm';
import { now } from '@/clock/now';
import { database } from '@/db/client';
import { installation } from '@/db/schema';
import { journal } from '@/journal/journal';
import { dayOf } from '@/ui/dates';
import { backUpTo, backupFolder, shopsToBackUp } from './folder';

/** From this hour on, in the zone of the machine. */
const FROM_HOUR = 2;
const LOOK_EVERY_MS = 10 * 60_000;
const LAST = 'last nightly backup';

/** Makes the backups of this night where nobody has made them yet. Gives the files that it made. */
export async function backUpTonight(folder: string): Promise<readonly string[]> {
  const moment = now();
  if (moment.getHours() < FROM_HOUR) return [];
  const today = dayOf(moment);
  // One statement decides who makes them, among any number of processes.
  const { rows } = await database().execute(sql`
    insert into ${installation} (key, value) values (${LAST}, ${today})
    on conflict (key) do update set value = excluded.value where ${installation}.value < excluded.value
    returning key`);
  if (rows.length === 0) return [];
  const made: string[] = [];
  try {
    for (const shop of await shopsToBackUp(false)) made.push(await backUpTo(folder, shop, 'nightly'));
  } catch (err) {
    // The next look tries again.
    await database().execute(sql`delete from ${installation} where key = ${LAST} and value = ${today}`);
    throw err;
  }
  return made;
}

const holder = globalThis as unknown as { everyTraceNightly?: NodeJS.Timeout };

/** Looks from time to time whether it is to be done. Nothing where no folder was named. */
export function startNightlyBackups(): void {
  const folder = backupFolder();
  if (folder === null || holder.everyTraceNightly) return;
  holder.everyTraceNightly = setInterval(() => {
    backUpTonight(folder).then(
      (made) => {
        if (made.length > 0) journal.info({ files: made.length }, 'the nightly backup is made');
      },
      (err: unknown) => journal.error({ err }, 'the nightly backup failed'),
    );
  }, LOOK_EVERY_MS);
  holder.everyTraceNightly.unref();
}
