/** Whether the database answers is asked apart from all work; a pool that is full is said to be that, and nothing else. */
import { withDatabase } from '../../testing/database';
import { closeAlive, databaseAnswers } from './alive';
import { connections } from './client';
import { isPoolFull } from './errors';

withDatabase();
afterAll(closeAlive);

test('three hundred questions at once while every connection works: all are answered, on one connection', async () => {
  const busy = await Promise.all(Array.from({ length: 10 }, () => connections().connect()));
  try {
    const working = Promise.all(busy.map((client) => client.query('select pg_sleep(1)')));
    await Promise.all(Array.from({ length: 300 }, () => databaseAnswers()));
    const { rows } = await busy[0]!.query<{ count: string }>(
      `select count(*) from pg_stat_activity where datname = current_database() and query = 'select 1'`,
    );
    expect(Number(rows[0]!.count)).toBe(1);
    await working;
  } finally {
    for (const client of busy) client.release();
  }
});

test('work that finds no connection free is told apart from a database that is away', async () => {
  const busy = await Promise.all(Array.from({ length: 10 }, () => connections().connect()));
  try {
    const late = await connections()
      .connect()
      .catch((error: unknown) => error);
    expect(isPoolFull(late)).toBe(true);
    expect(isPoolFull(new Error('Failed query: select 1', { cause: late }))).toBe(true);
    await databaseAnswers();
  } finally {
    for (const client of busy) client.release();
  }
}, 20_000);

test('a database that is away is said to be', async () => {
  const before = process.env.DATABASE_URL;
  process.env.DATABASE_URL = 'postgres://nobody:x@127.0.0.1:1/none';
  try {
    const error = await databaseAnswers().catch((one: unknown) => one);
    expect(error).toMatchObject({ code: 'ECONNREFUSED' });
    expect(isPoolFull(error)).toBe(false);
  } finally {
    process.env.DATABASE_URL = before;
  }
  await databaseAnswers();
});
