/** Rows that lists and searches read. Each file keeps one kind of them, and makes them anew from what is recorded. */
import type { WithinShop } from '../client';
import { rebuildJobRows } from './jobRows';
import { rebuildMapRows } from './mapRows';
import { rebuildSearch } from './searchRows';
import { rebuildLevels } from './stockRows';

/**
 * All of them anew, or those of one shop: what they mean may have changed with the program, or they were brought in
 * without. Gives the number of jobs.
 */
export async function rebuildProjections(within?: WithinShop): Promise<number> {
  const jobs = await rebuildJobRows(within);
  await rebuildMapRows(within);
  await rebuildLevels(within);
  await rebuildSearch(within);
  return jobs;
}
