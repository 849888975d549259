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

/** `held`: something that a browser holds of a job beside its entries, its stock and its maps among them. */
export type News = 'entries' | 'here' | 'helper' | 'held';
const ALL_NEWS: readonly News[] = ['entries', 'here', 'helper', 'held'];

type Heard = (news: News) => void;

/** As it comes from the database: of which job, vehicle or shop, and by which job where that one knows it already. */
interface Told {
  readonly to?: string;
  readonly news?: News;
  readonly by?: string;
}

interface Listener {
  readonly jobId: string;
  readonly heard: Heard;
}

interface Listening {
  readonly url: string | undefined;
  /** By the id of what it is told of: a job, its vehicle, its shop. */
  readonly heard: Map<string, Set<Listener>>;
  client: pg.Client | null;
}

const holder = globalThis as unknown as { everyTraceNews?: Listening };

/**
 * Calls `heard` with the news of a job until the answer is called; `around` names its vehicle and its shop, of which it
 * hears too. After a lost connection all kinds are told.
 */
export function listenTo(jobId: string, heard: Heard, around: readonly string[] = []): () => void {
  const { DATABASE_URL: url } = process.env;
  if (holder.everyTraceNews?.url !== url) {
    void holder.everyTraceNews?.client?.end().catch(() => undefined);
    holder.everyTraceNews = { url, heard: new Map(), client: null };
    void connect(holder.everyTraceNews);
  }
  const { heard: all } = holder.everyTraceNews!;
  const one: Listener = { jobId, heard };
  const ids = [jobId, ...around];
  for (const id of ids) all.set(id, (all.get(id) ?? new Set<Listener>()).add(one));
  return () => {
    for (const id of ids) {
      const own = all.get(id);
      own?.delete(one);
      if (own?.size === 0) all.delete(id);
    }
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
    const { to, news, by } = JSON.parse(payload ?? '{}') as Told;
    if (!to || !news) return;
    for (const { jobId, heard } of listening.heard.get(to) ?? []) if (jobId !== by) heard(news);
  });
  try {
    await client.connect();
    await client.query(`LISTEN ${CHANNEL}`);
    listening.client = client;
    // Whatever happened meanwhile is asked for.
    for (const { heard } of new Set([...listening.heard.values()].flatMap((own) => [...own]))) {
      for (const news of ALL_NEWS) heard(news);
    }
  } catch {
    again();
  }
}

/** Tells all processes. Of entries the database tells by itself. */
export async function tell(db: Database | Transaction, jobId: string, news: News): Promise<void> {
  await db.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify({ to: jobId, news })})`);
}
