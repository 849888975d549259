/** Tests that would make the leading suspect proved. */

import type { Predictions } from '../evidence/predictions';
import type { RepairGroup } from '../evidence/repairGroup';
import { kindOf, setUpOf, spotOf } from '../kinds';
import type { TestCandidate } from '../tests';
import { SUPPORTS, type Support } from '../verdict/verdict';
import type { TestWorth } from './next';

/** So many of the best are looked at again in the light of the readings. */
const LOOKED_AT_AGAIN = 8;

/** How much a test is expected to speak for a group, where the group is right: nats; `chances` are its results'. */
function speaksFor(
  chances: Float32Array,
  outcomes: number,
  p: Float64Array,
  inside: ReadonlySet<number>,
): number {
  let insideMass = 0;
  let outsideMass = 0;
  const insideChance = new Float64Array(outcomes);
  const outsideChance = new Float64Array(outcomes);
  for (let h = 0; h < p.length; h++) {
    const into = inside.has(h) ? insideChance : outsideChance;
    if (inside.has(h)) insideMass += p[h]!;
    else outsideMass += p[h]!;
    for (let k = 0; k < outcomes; k++) into[k] = into[k]! + p[h]! * chances[h * outcomes + k]!;
  }
  if (outsideMass <= 0) return 0;
  let speaks = 0;
  for (let k = 0; k < outcomes; k++) {
    const one = insideChance[k]! / insideMass;
    const other = outsideChance[k]! / outsideMass;
    if (one > 0) speaks += one * Math.log(one / Math.max(other, 1e-9));
  }
  return speaks;
}

/**
 * Tests that would make the leading group proved: another spot, another set-up, and telling. `given` are the chances that
 * the readings so far leave a test.
 */
export function confirmingTests(
  predictions: Predictions,
  ranked: readonly TestWorth[],
  p: Float64Array,
  group: RepairGroup,
  support: readonly Support[],
  given: (test: TestCandidate) => Float32Array,
): TestWorth[] {
  const strong = support.filter((one) => one.ratio >= SUPPORTS).map((one) => one.reading);
  const inside = new Set(group.members);
  const enough = Math.log(SUPPORTS) / 2;
  const perMinute = (speaks: number, { minutes, test }: TestWorth) =>
    speaks / (minutes + (test.disturbs ? 1 : 0));
  const scored = ranked.flatMap((worth) => {
    const { test } = worth;
    const independent = strong.some(
      (reading) => spotOf(reading.test) !== test.spot && setUpOf(reading.test) !== test.setUp,
    );
    if (strong.length > 0 && !independent && !kindOf(test.ref).intervenes) return [];
    const { outcomes, chances } = predictions.of(test.id, test.ref);
    const speaks = speaksFor(chances, outcomes, p, inside);
    return speaks > enough ? [{ worth, score: perMinute(speaks, worth) }] : [];
  });
  return scored
    .sort((x, y) => y.score - x.score)
    .slice(0, LOOKED_AT_AGAIN)
    .flatMap(({ worth }) => {
      const { outcomes } = predictions.of(worth.test.id, worth.test.ref);
      const speaks = speaksFor(given(worth.test), outcomes, p, inside);
      return speaks > enough ? [{ worth, score: perMinute(speaks, worth) }] : [];
    })
    .sort((x, y) => y.score - x.score)
    .map((one) => one.worth)
    .slice(0, 4);
}
