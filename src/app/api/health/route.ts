import { sql } from 'drizzle-orm';
import { database } from '@/db/client';
import { journal } from '@/journal/journal';

export const dynamic = 'force-dynamic';

/** Whether the program can work: it asks the database, not itself. */
export async function GET() {
  const about = { name: 'every-trace', build: process.env.EVERY_TRACE_BUILD ?? null };
  try {
    await database().execute(sql`select 1`);
    return Response.json({ ...about, database: 'up' });
  } catch (err) {
    journal.warn({ err }, 'the database does not answer');
    const message = 'The database does not answer.';
    return Response.json({ ...about, database: 'down', message }, { status: 503 });
  }
}
