/** Entries that no correction has struck, as a condition of a query over the log. */
import { and, eq, notExists, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { database } from '@/db/client';
import { jobEvents } from '@/db/schema';

export function notStruck() {
  const strike = alias(jobEvents, 'strike');
  return notExists(
    database()
      .select({ id: strike.id })
      .from(strike)
      .where(
        and(
          eq(strike.jobId, jobEvents.jobId),
          eq(strike.kind, 'correction'),
          sql`${strike.body} ->> 'of' = ${jobEvents.id}::text`,
        ),
      ),
  );
}
