/** `npm run restore -- FILE [--beside] [--key CODE]`: brings a backup back, all of it or nothing. */
import { parseArgs } from 'node:util';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { closeDatabase } from '../src/db/client';
import { transaction } from '../src/db/transaction';
import { AlreadyHere, Damaged, openBackup, restoreBackup } from '../src/features/backup/server';
import { makeEntryLink } from '../src/features/people/server';
import { inThe, stopper } from './lib/terminal';

const DAY_MS = 86_400_000;
const USAGE = 'npm run restore -- FILE [--beside] [--key CODE]';
const migrations = readMigrationFiles({ migrationsFolder: 'src/db/migrations' }).length;
const percent = (done: number, of: number) => (of === 0 ? 100 : Math.floor((100 * done) / of));

/** What was asked for, or what is wrong with it. */
function askedFor() {
  try {
    const { values, positionals } = parseArgs({
      args: process.argv.slice(2),
      allowPositionals: true,
      options: { beside: { type: 'boolean', default: false }, key: { type: 'string' } },
    });
    const [file, ...more] = positionals;
    if (!file || more.length > 0) return 'Enter one file:';
    return { file, beside: values.beside, code: values.key };
  } catch {
    return 'Usage:';
  }
}

async function main(signal: AbortSignal): Promise<number> {
  const asked = askedFor();
  if (typeof asked === 'string') {
    console.error(`${asked} ${USAGE}`);
    return 2;
  }
  const { file, beside, code } = asked;
  const backup = await openBackup(file, {
    migrations,
    signal,
    onProgress: (done, of) => inThe(`Looking at it: ${percent(done, of)} %`),
  });
  try {
    const restored = await restoreBackup(backup, {
      beside,
      code,
      signal,
      onProgress: (done, of) => inThe(`Bringing it back: ${percent(done, of)} %`),
    });
    inThe('');
    console.log(`${restored.shopName} is back: ${restored.rows} rows and ${restored.photos} photos.`);
    console.log(
      restored.proved
        ? 'The backup is verified by its key: entries keep their authors.'
        : 'The backup is not verified: its entries are shown as imported from a file. To keep the authors, restore with --key and the key shown on the Shop page of the original installation.',
    );
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
