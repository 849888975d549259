import { isShared } from '@/access';
import { databaseAnswers } from '@/db/alive';
import { open } from '@/http/door';
import { journal } from '@/journal/journal';

export const dynamic = 'force-dynamic';

/** Whether the program can work: it asks the database, not itself. */
export const GET = open('It tells whether the program can work, and nothing of anybody.', async () => {
  const about = { name: 'every-trace', build: process.env.EVERY_TRACE_BUILD ?? null, shared: isShared() };
  try {
    await databaseAnswers();
    return Response.json({ ...about, database: 'up' });
  } catch (err) {
    journal.warn({ err }, 'the database does not answer');
    const message = 'The database does not answer.';
    return Response.json({ ...about, database: 'down', message }, { status: 503 });
  }
});
