/** Between which stops of a run the fault must lie: a bracket around the suspects that are left. */
import type { PartStanding } from './assessment';
import type { Run } from './run';
import { WORTH_A_WORD } from './thresholds';

/** So much of all chance has to lie inside it, or the fault may as well lie elsewhere. */
const INSIDE = 0.8;

/** First and last stop; null while the readings leave the whole run, or point elsewhere. */
export function bracketOf(
  { stations }: Run,
  standings: ReadonlyMap<string, PartStanding>,
): readonly [number, number] | null {
  const chances = stations.map(({ part }) => standings.get(part)?.chance ?? 0);
  const first = chances.findIndex((chance) => chance >= WORTH_A_WORD);
  if (first < 0) return null;
  const last = chances.findLastIndex((chance) => chance >= WORTH_A_WORD);
  if (first === 0 && last === stations.length - 1) return null;
  const inside = chances.slice(first, last + 1).reduce((sum, chance) => sum + chance, 0);
  return inside >= INSIDE ? [first, last + 1] : null;
}

/** "Between Fuse 31 and Plug C12": the parts just outside a bracket; the ends of the run where it reaches them. */
export function bracketWords({ stations }: Run, [first, last]: readonly [number, number]): string {
  const before = stations[first - 1]?.name ?? 'the source';
  const behind = stations[last]?.name ?? 'the end of the run';
  return `Between ${before} and ${behind}`;
}
