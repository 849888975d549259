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
 * combinations each branch’s own worst is sought by turning one thing at a time until nothing makes it more.
 */
export function presentIn(model: CircuitModel, states: readonly KeyState[]): Present {
  const dials = switched(model);
  const count = model.network.branches.length;
  const amps = new Float64Array(count);
  const at: Record<string, string>[] = Array.from({ length: count }, () => ({}));
  const whole = rowCount(dials) <= MOST_COMBINATIONS;
  const seen = new Set<string>();
  for (const state of states) {
    const look = (row: Record<string, string>): Float64Array => {
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
    else climb(dials, look);
  }
  return { amps, at, whole };
}

/** From everything at rest, and from everything turned on, one dial at a time as long as any branch gains by it. */
function climb(dials: readonly Dial[], look: (row: Record<string, string>) => Float64Array): void {
  const rest = Object.fromEntries(dials.map((dial) => [dial.id, dial.positions[0]!]));
  const sum = (amps: Float64Array) => amps.reduce((total, one) => total + Math.abs(one), 0);
  for (const first of [rest, ...lasts(dials)]) {
    let best = first;
    let most = sum(look(best));
    for (let gained = true; gained; ) {
      gained = false;
      for (const dial of dials) {
        for (const position of dial.positions) {
          if (best[dial.id] === position) continue;
          const row = { ...best, [dial.id]: position };
          const total = sum(look(row));
          if (total > most + 1e-9) [best, most, gained] = [row, total, true];
        }
      }
    }
  }
}

/** Every dial at its last position, and every dial at its second. */
function lasts(dials: readonly Dial[]): Record<string, string>[] {
  return [
    Object.fromEntries(dials.map((dial) => [dial.id, dial.positions.at(-1)!])),
    Object.fromEntries(dials.map((dial) => [dial.id, dial.positions[1] ?? dial.positions[0]!])),
  ];
}
