/**
 * Server and database killed at random, twice each at least, for thirty-five seconds (`npm run verify`: three minutes), while
 * three people write.
 */
import { killTest } from '../scripts/kills.mjs';
import { expect, test } from './test';

const LEAST = 4;

test('nothing acknowledged is lost, doubled, out of order or half made', async () => {
  test.setTimeout(300_000);
  const { server, database, away, jobs, entries, wrong } = await killTest(35, LEAST);
  console.log(
    `${server} kills of the server, ${database} of the database; ${away.toFixed(1)} s to the next answer at the most; ${jobs} jobs, ${entries} entries`,
  );
  expect(wrong).toEqual([]);
  expect([server, database].map((of) => of >= LEAST / 2)).toEqual([true, true]);
  expect(jobs).toBeGreaterThan(2);
  expect(entries).toBeGreaterThan(20);
});
