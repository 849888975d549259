import { sql } from 'drizzle-orm';
import { withDatabase } from '../../testing/database';
import { database } from './client';

withDatabase();

// An error that nobody hears would fail this by itself, and end a program.
test('a connection that is lost in use fails what used it, ends nothing else, and is replaced', async () => {
  const lost = database().transaction(async (tx) => {
    const { rows } = await tx.execute<{ pid: number }>(sql`select pg_backend_pid() as pid`);
    // By another connection, and while this one asks for nothing.
    await database().execute(sql`select pg_terminate_backend(${rows[0]!.pid})`);
    await new Promise((resolve) => setTimeout(resolve, 200));
    await tx.execute(sql`select 1`);
  });
  await expect(lost).rejects.toThrow();
  expect((await database().execute<{ one: number }>(sql`select 1 as one`)).rows).toEqual([{ one: 1 }]);
});
