/** `npm run backup [-- FOLDER]`: every shop of the database as a file each, for whoever takes them elsewhere. */
import path from 'node:path';
import { closeDatabase } from '../src/db/client';
import { backUpTo, backupFolder, ownCode, shopsToBackUp } from '../src/features/backup/server';
import { inThe, stopper } from './lib/terminal';

const folder = path.resolve(process.argv[2] ?? backupFolder() ?? '.');
const { signal, done } = stopper();
try {
  const shops = await shopsToBackUp(true);
  if (shops.length === 0) console.log('The database holds no shop: there is nothing to back up.');
  for (const shop of shops) {
    const file = await backUpTo(folder, shop, 'asked', {
      signal,
      onProgress: ({ done: now, of }) => inThe(`${shop.name}: ${now} of ${of}`),
    });
    inThe('');
    console.log(`${shop.name}: ${file}`);
  }
  const code = shops.length > 0 ? await ownCode() : null;
  if (code)
    console.log(
      `Signed with the key ${code}. To keep the authors on another machine: npm run restore -- FILE --key ${code}`,
    );
} catch (error) {
  inThe('');
  console.error(signal.aborted ? 'Stopped. Nothing was left behind.' : (error as Error).message);
  process.exitCode = 1;
} finally {
  done();
  await closeDatabase();
}
