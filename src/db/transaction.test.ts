/** Transactions: what is asked beside one throws, and what the database took back for another is done again. */
import { sql } from 'drizzle-orm';
import { withDatabase } from '../../testing/database';
import { database } from './client';
import { beside, transaction } from './transaction';

withDatabase();

const one = sql`select 1 as one`;

test('nothing inside asks the pool, also behind a wait; what belongs to no transaction does', async () => {
  const asked = transaction(async (tx) => {
    await tx.execute(one);
    return database().execute(one);
  });
  await expect(asked).rejects.toThrow('inside a transaction');
  await expect(transaction(async () => transaction((tx) => tx.execute(one)))).rejects.toThrow('inside');
  const besides = await transaction(async () => beside(() => database().execute(one)));
  expect(besides.rows).toEqual([{ one: 1 }]);
  expect((await database().execute(one)).rows).toEqual([{ one: 1 }]);
});

test('two that lock the same two things in another order both end, each done whole', async () => {
  await database().execute(sql`create table two (id integer primary key, count integer not null)`);
  await database().execute(sql`insert into two values (1, 0), (2, 0)`);
  let begun = 0;
  const add = (first: number, second: number) =>
    transaction(async (tx) => {
      begun += 1;
      await tx.execute(sql`update two set count = count + 1 where id = ${first}`);
      await tx.execute(sql`select pg_sleep(0.2)`);
      await tx.execute(sql`update two set count = count + 1 where id = ${second}`);
    });
  await Promise.all([add(1, 2), add(2, 1)]);
  const { rows } = await database().execute<{ count: number }>(sql`select count from two order by id`);
  expect(rows).toEqual([{ count: 2 }, { count: 2 }]);
  expect(begun).toBe(3);
});

test('any other error is not tried again', async () => {
  let begun = 0;
  const failing = transaction(async (tx) => {
    begun += 1;
    await tx.execute(sql`select 1 / 0`);
  });
  await expect(failing).rejects.toThrow();
  expect(begun).toBe(1);
});
