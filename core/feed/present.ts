/** What flows in every part at most, over all combinations of what can be switched or plugged in, in given states of the key. */

import type { KeyState } from '../limits';
import { combinations, conditionOf, type Dial, dialsOf, rowCount } from '../live';
import { type CircuitModel, UNALTERED } from '../network';
import { conditionIn } from './simulated';

/** Up to so many combinations all are looked at; beyond, what is switched is turned one at a time from the worst so far. */
const MOST_COMBINATIONS = 256;

export interface Present {
  /** Ampere by branch, the largest over what was looked at. */
  readonly amps: Float64Array;
  /** In which setting, by branch: positions by dial. */
  readonly at: readonly Readonly<Record<string, string>>[];
  /** Every combination was looked at. */
  readonly whole: boolean;
}

/** The dials that hands turn, besides key and engine. */
function switched(model: CircuitModel): Dial[] {
  return dialsOf(model.circuit).filter(({ id }) => id !== 'key' && id !== 'engine');
}

/**
 * Largest current in every branch while key and engine stand so, whatever is switched on. Where there are more than 256
 * combinations the worst of each branch is sought by turning one thing at a time until nothing makes it more.
 */
export function presentIn(
  model: CircuitModel,
  states: readonly KeyState[],
  most = MOST_COMBINATIONS,
): Present {
  const dials = switched(model);
  const count = model.network.branches.length;
  const amps = new Float64Array(count);
  const at: Record<string, string>[] = Array.from({ length: count }, () => ({}));
  const whole = rowCount(dials) <= most;
  const seen = new Set<string>();
  // What is behind contacts and loads carries no more than what is before them.
  const carriers = model.network.branches.flatMap(({ role }, index) =>
    role === 'fuse' || role === 'conductor' || role === 'contact' || role === 'breaker' ? [index] : [],
  );
  for (const state of states) {
    const look = (row: Row): Float64Array => {
      const { switches, pluggedIn } = conditionOf(dials, row);
      const condition = {
        ...conditionIn(model, state),
        ...(switches ? { switches } : {}),
        ...(pluggedIn ? { pluggedIn } : {}),
      };
      const point = model.solve(model.adopt(condition), UNALTERED);
      for (let branch = 0; branch < count; branch++) {
        const flows = Math.abs(point.amps[branch]!);
        if (flows > amps[branch]!) {
          amps[branch] = flows;
          at[branch] = { ...row, key: state };
        }
      }
      return point.amps;
    };
    // States that no contact tells apart are looked at once.
    const key = JSON.stringify(conditionIn(model, state));
    if (seen.has(key)) continue;
    seen.add(key);
    if (whole) for (const row of combinations(dials)) look(row);
    else climb(dials, carriers, look);
  }
  return { amps, at, whole };
}

/**
 * Branch by branch, from everything at rest and from everything turned on: one dial at a time as long as that branch gains by
 * it. Rows that another branch has led to are looked at once.
 */
function climb(dials: readonly Dial[], branches: readonly number[], look: (row: Row) => Float64Array): void {
  const seen = new Map<string, Float64Array>();
  const at = (row: Row, branch: number) => {
    const key = dials.map(({ id }) => row[id]).join();
    const amps = seen.get(key) ?? Float64Array.from(look(row));
    seen.set(key, amps);
    return Math.abs(amps[branch]!);
  };
  for (const branch of branches) {
    for (const first of firsts(dials)) {
      let best = first;
      let most = at(best, branch);
      for (let gained = true; gained; ) {
        gained = false;
        for (const dial of dials) {
          for (const position of dial.positions) {
            if (best[dial.id] === position) continue;
            const row = { ...best, [dial.id]: position };
            const amps = at(row, branch);
            if (amps > most + GAIN_AMPS) [best, most, gained] = [row, amps, true];
          }
        }
      }
    }
  }
}

type Row = Record<string, string>;

/** Less more is none, ampere. */
const GAIN_AMPS = 1e-6;

/** Every dial at rest, at its second and at its last position. */
function firsts(dials: readonly Dial[]): Row[] {
  const all = (position: (dial: Dial) => string) =>
    Object.fromEntries(dials.map((dial) => [dial.id, position(dial)]));
  return [
    all(({ positions }) => positions[0]!),
    all(({ positions }) => positions[1] ?? positions[0]!),
    all(({ positions }) => positions.at(-1)!),
  ];
}
