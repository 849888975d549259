/** Whether the database answers: asked on a connection of its own, so that no work that goes on makes it look away. */
import pg from 'pg';

/** So long an answer is waited for. */
const ANSWER_MS = 5000;

interface Asking {
  readonly url: string | undefined;
  readonly pool: pg.Pool;
  /** The question that is on its way; whoever asks meanwhile gets its answer. */
  now: Promise<void> | null;
}

const holder = globalThis as unknown as { everyTraceAlive?: Asking };

function asking(): Asking {
  const { DATABASE_URL: url } = process.env;
  if (holder.everyTraceAlive?.url !== url) {
    void holder.everyTraceAlive?.pool.end().catch(() => undefined);
    const pool = new pg.Pool({
      connectionString: url,
      max: 1,
      connectionTimeoutMillis: ANSWER_MS,
      query_timeout: ANSWER_MS,
      idleTimeoutMillis: 30_000,
      allowExitOnIdle: true,
    });
    // A lost connection is replaced at the next question; it must not end the process.
    pool.on('error', () => undefined);
    holder.everyTraceAlive = { url, pool, now: null };
  }
  return holder.everyTraceAlive!;
}

/** Fails where the database does not answer. */
export function databaseAnswers(): Promise<void> {
  const one = asking();
  one.now ??= one.pool
    .query('select 1')
    .then(() => undefined)
    .finally(() => {
      one.now = null;
    });
  return one.now;
}

/** Lets go of the connection. */
export async function closeAlive(): Promise<void> {
  await holder.everyTraceAlive?.pool.end();
  delete holder.everyTraceAlive;
}
