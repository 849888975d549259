/** `npm run restore -- FILE [--beside]`: brings a backup back, all of it or nothing. */
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { closeDatabase } from '../src/db/client';
import { transaction } from '../src/db/transaction';
import { AlreadyHere, Damaged, openBackup, restoreBackup } from '../src/features/backup/server';
import { makeEntryLink } from '../src/features/people/server';
import { inThe, stopper } from './lib/terminal';

const DAY_MS = 86_400_000;
const [file, ...flags] = process.argv.slice(2).filter((one) => one !== '--');
const beside = flags.includes('--beside');
const migrations = readMigrationFiles({ migrationsFolder: 'src/db/migrations' }).length;
const percent = (done: number, of: number) => (of === 0 ? 100 : Math.floor((100 * done) / of));

async function main(signal: AbortSignal): Promise<number> {
  if (!file || flags.some((one) => one !== '--beside')) {
    console.error('Say which file: npm run restore -- FILE [--beside]');
    return 2;
  }
  const backup = await openBackup(file, {
    migrations,
    signal,
    onProgress: (done, of) => inThe(`Looking at it: ${percent(done, of)} %`),
  });
  try {
    const restored = await restoreBackup(backup, {
      beside,
      signal,
      onProgress: (done, of) => inThe(`Bringing it back: ${percent(done, of)} %`),
    });
    inThe('');
    console.log(`${restored.shopName} is back: ${restored.rows} rows and ${restored.photos} photos.`);
    for (const owner of restored.owners) {
      const token = await transaction((tx) =>
        makeEntryLink(tx, { id: owner.id, shopId: restored.shopId, madeBy: null }, DAY_MS),
      );
      console.log(`${owner.name} comes in by this address, once, within a day: /enter/${token}`);
    }
    return 0;
  } finally {
    backup.close();
  }
}

const { signal, done } = stopper();
try {
  process.exitCode = await main(signal);
} catch (error) {
  inThe('');
  const told = error instanceof Damaged || error instanceof AlreadyHere;
  console.error(
    signal.aborted
      ? 'Stopped. Nothing was brought back.'
      : `${told ? (error as Error).message : `It cannot be brought back: ${(error as Error).message}`} Nothing was brought back.`,
  );
  process.exitCode = 1;
} finally {
  done();
  await closeDatabase();
}
