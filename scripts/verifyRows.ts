/**
 * Part of `npm run verify`: a shop of 100,000 entries is made through the doors that people use; what small steps have kept
 * is compared with what the log says, by code of its own, and with all rows made anew.
 */
import { closeDatabase, database } from '../src/db/client';
import { rebuildProjections } from '../src/db/projections';
import { jobEvents, jobs } from '../src/db/schema';
import { expectedRows, keptRows } from '../testing/rowsOfLog';
import { FULL, seed } from './seed';

await seed(FULL);
const every = await database().select({ id: jobs.id }).from(jobs);
const wrong = { kept: 0, anew: 0 };
const before = new Map<string, string>();
for (const { id } of every) {
  const kept = JSON.stringify(await keptRows(id));
  before.set(id, kept);
  if (kept !== JSON.stringify(await expectedRows(id))) wrong.kept += 1;
}
await rebuildProjections();
for (const { id } of every) if (JSON.stringify(await keptRows(id)) !== before.get(id)) wrong.anew += 1;
const entries = await database().$count(jobEvents);
console.log(
  `rows of ${every.length} jobs with ${entries} entries: ${wrong.kept} otherwise than the log says, ${wrong.anew} otherwise when made anew`,
);
await closeDatabase();
process.exitCode = wrong.kept + wrong.anew === 0 ? 0 : 1;
