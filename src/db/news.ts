/**
 * News of jobs by the database's own notification: whatever process wrote something, all of them hear of it. One
 * connection of each process listens; it is made when the first asks, and anew when it is lost.
 */
import { sql } from 'drizzle-orm';
import pg from 'pg';
import { journal } from '@/journal/journal';
import type { Database, Transaction } from './client';

const CHANNEL = 'every_trace';
/** So long until a lost connection is made anew. */
const AGAIN_MS = 1000;

export type News = 'entries' | 'here' | 'helper';

type Heard = (news: News) => void;

interface Listening {
  readonly url: string | undefined;
  readonly heard: Map<string, Set<Heard>>;
  client: pg.Client | null;
}

const holder = globalThis as unknown as { everyTraceNews?: Listening };

/** Calls `heard` with the news of a job until the answer is called. After a lost connection all kinds are told. */
export function listenTo(jobId: string, heard: Heard): () => void {
  const { DATABASE_URL: url } = process.env;
  if (holder.everyTraceNews?.url !== url) {
    void holder.everyTraceNews?.client?.end().catch(() => undefined);
    holder.everyTraceNews = { url, heard: new Map(), client: null };
    void connect(holder.everyTraceNews);
  }
  const { heard: all } = holder.everyTraceNews!;
  const own = all.get(jobId) ?? new Set();
  all.set(jobId, own.add(heard));
  return () => {
    own.delete(heard);
    if (own.size === 0) all.delete(jobId);
  };
}

async function connect(listening: Listening): Promise<void> {
  const client = new pg.Client({ connectionString: listening.url, keepAlive: true });
  let lost = false;
  const again = () => {
    if (lost || holder.everyTraceNews !== listening) return;
    lost = true;
    listening.client = null;
    client.end().catch(() => undefined);
    setTimeout(() => void connect(listening), AGAIN_MS).unref();
  };
  client.on('error', (err) => {
    journal.warn({ err }, 'the connection that hears of news was lost');
    again();
  });
  client.on('end', again);
  client.on('notification', ({ payload }) => {
    const { job, news } = JSON.parse(payload ?? '{}') as { job?: string; news?: News };
    if (job && news) for (const one of listening.heard.get(job) ?? []) one(news);
  });
  try {
    await client.connect();
    await client.query(`LISTEN ${CHANNEL}`);
    listening.client = client;
    // Whatever happened meanwhile is asked for.
    for (const own of listening.heard.values()) {
      for (const one of own) for (const news of ['entries', 'here', 'helper'] as const) one(news);
    }
  } catch {
    again();
  }
}

/** Tells all processes. Of entries the database tells by itself. */
export async function tell(db: Database | Transaction, jobId: string, news: News): Promise<void> {
  await db.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify({ job: jobId, news })})`);
}
