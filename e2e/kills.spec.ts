/** Server and database killed at random for thirty-five seconds (`npm run verify`: three minutes), while three people write. */
import { killTest } from '../scripts/kills.mjs';
import { expect, test } from './test';

test('nothing acknowledged is lost, doubled, out of order or half made', async () => {
  test.setTimeout(180_000);
  const { server, database, jobs, entries, wrong } = await killTest(35);
  console.log(`${server} kills of the server, ${database} of the database; ${jobs} jobs, ${entries} entries`);
  expect(wrong).toEqual([]);
  expect(server + database).toBeGreaterThan(2);
  expect(jobs).toBeGreaterThan(2);
  expect(entries).toBeGreaterThan(20);
});
