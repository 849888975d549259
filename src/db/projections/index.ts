/** Rows that lists and searches read. Each file keeps one kind of them, and makes them anew from what is recorded. */
import { rebuildJobRows } from './jobRows';
import { rebuildMapRows } from './mapRows';
import { rebuildSearch } from './searchRows';

/** All of them anew: what they mean may have changed with the program. Gives the number of jobs. */
export async function rebuildProjections(): Promise<number> {
  const jobs = await rebuildJobRows();
  await rebuildMapRows();
  await rebuildSearch();
  return jobs;
}
