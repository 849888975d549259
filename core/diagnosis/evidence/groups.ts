/** Repair groups: what no permitted test can tell apart is shown, and repaired, as one. */

import { APPLIANCE } from '../hypotheses/appliance';
import type { Hypothesis } from '../hypotheses/hypothesis';
import type { TestCandidate } from '../tests';
import type { Predictions } from './predictions';
import type { RepairGroup } from './repairGroup';
import type { TestPrediction } from './testPrediction';

/** Two predictions count as told apart when their means lie this many standard deviations apart. */
const SEPARATED_SIGMAS = 2;
/** Or when two sets of chances differ by this much in total variation. */
const SEPARATED_VARIATION = 0.6;

function tells(prediction: TestPrediction, g: number, h: number): boolean {
  const { volts, outcomes, clean } = prediction;
  if (volts && volts.floating[g] === 0 && volts.floating[h] === 0) {
    const error = Math.hypot(volts.spread[g]!, volts.spread[h]!);
    return Math.abs(volts.mean[g]! - volts.mean[h]!) > SEPARATED_SIGMAS * error;
  }
  let variation = 0;
  for (let k = 0; k < outcomes; k++) {
    variation += Math.abs(clean[g * outcomes + k]! - clean[h * outcomes + k]!);
  }
  return variation / 2 > SEPARATED_VARIATION;
}

/** Groups hypotheses by repair unit, then joins units that some pair of members makes indistinguishable. */
export function repairGroups(
  hypotheses: readonly Hypothesis[],
  tests: readonly TestCandidate[],
  predictions: Predictions,
): RepairGroup[] {
  const columns = tests
    .map((test) => predictions.of(test.id, test.ref))
    .filter((prediction) => prediction.tells);
  // A pair is repaired one after the other; what comes and goes is repaired as what stays.
  const single = (one: Hypothesis) => one.second === undefined;
  const units = [...new Set(hypotheses.filter(single).map((one) => one.unit))];
  const parent = new Map(units.map((unit) => [unit, unit]));
  const find = (unit: string): string => {
    let here = unit;
    while (parent.get(here) !== here) here = parent.get(here)!;
    return here;
  };
  // The test that told the last pair apart often tells the next one too.
  const order = columns.slice();
  for (let g = 0; g < hypotheses.length; g++) {
    for (let h = g + 1; h < hypotheses.length; h++) {
      const one = hypotheses[g]!;
      const other = hypotheses[h]!;
      if (!one.faults.length || !other.faults.length || one.unit === other.unit) continue;
      // No reading tells who took a fuse; what was plugged in does.
      if (one.unit === APPLIANCE || other.unit === APPLIANCE) continue;
      if (!single(one) || !single(other) || one.intermittent || other.intermittent) continue;
      if (find(one.unit) === find(other.unit)) continue;
      const at = order.findIndex((column) => tells(column, g, h));
      if (at < 0) parent.set(find(other.unit), find(one.unit));
      else if (at > 0) {
        const [column] = order.splice(at, 1);
        order.unshift(column!);
      }
    }
  }
  const groups = new Map<string, { units: string[]; members: number[] }>();
  for (const unit of units) {
    const root = find(unit);
    const group = groups.get(root) ?? { units: [], members: [] };
    group.units.push(unit);
    groups.set(root, group);
  }
  hypotheses.forEach((one, h) => {
    if (single(one)) groups.get(find(one.unit))!.members.push(h);
  });
  return [...groups.entries()].map(([id, group]) => ({
    id,
    ...group,
    parts: [...new Set(group.members.flatMap((h) => hypotheses[h]!.parts))],
  }));
}

/** What refused tests would have told apart, in words; null where they would have told nothing apart. */
export function mergedByRefusal(
  groups: readonly RepairGroup[],
  all: readonly RepairGroup[],
  title: (group: RepairGroup) => string,
): string | null {
  const merged = groups.filter(
    (group) => !all.some((one) => group.units.every((unit) => one.units.includes(unit))),
  );
  if (merged.length === 0) return null;
  return `Without the refused test these cannot be told apart and count as one: ${merged.map(title).join('; ')}.`;
}

/** Groups with the chances of now: each pair of faults counts to the one of its two that is likelier by itself. */
export interface StandingGroups {
  readonly groups: readonly RepairGroup[];
  /** By hypothesis. */
  readonly groupOf: Int32Array;
  readonly chance: Float64Array;
}

/** Gives every pair to the group of its likelier member, and sums the chances up. */
export function withPairs(
  hypotheses: readonly Hypothesis[],
  groups: readonly RepairGroup[],
  p: Float64Array,
): StandingGroups {
  const groupOf = new Int32Array(hypotheses.length).fill(-1);
  const chance = new Float64Array(groups.length);
  const byUnit = new Map<string, number>();
  groups.forEach((group, g) => {
    for (const unit of group.units) byUnit.set(unit, g);
    for (const h of group.members) {
      groupOf[h] = g;
      chance[g] = chance[g]! + p[h]!;
    }
  });
  const alone = chance.slice();
  const members = groups.map((group) => [...group.members]);
  hypotheses.forEach(({ unit, second }, h) => {
    if (second === undefined) return;
    const one = byUnit.get(unit)!;
    const other = byUnit.get(second) ?? one;
    const g = alone[other]! > alone[one]! ? other : one;
    groupOf[h] = g;
    chance[g] = chance[g]! + p[h]!;
    members[g]!.push(h);
  });
  return { groups: groups.map((group, g) => ({ ...group, members: members[g]! })), groupOf, chance };
}
