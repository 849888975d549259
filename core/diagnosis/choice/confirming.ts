/** Tests that would make the leading suspect proved. */
import type { RepairGroup } from '../evidence/groups';
import type { Predictions } from '../evidence/predictions';
import { kindOf, setUpOf, spotOf } from '../kinds';
import { SUPPORTS, type Support } from '../verdict/verdict';
import type { TestWorth } from './next';

/** Tests that would make the leading group proved: another spot, another set-up, and telling. */
export function confirmingTests(
  predictions: Predictions,
  ranked: readonly TestWorth[],
  p: Float64Array,
  group: RepairGroup,
  support: readonly Support[],
): TestWorth[] {
  const strong = support.filter((one) => one.ratio >= SUPPORTS).map((one) => one.reading);
  const inside = new Set(group.members);
  const scored: { worth: TestWorth; score: number }[] = [];
  for (const worth of ranked) {
    const independent = strong.some(
      (reading) => spotOf(reading.test) !== worth.test.spot && setUpOf(reading.test) !== worth.test.setUp,
    );
    if (strong.length > 0 && !independent && !kindOf(worth.test.ref).intervenes) continue;
    const { outcomes, chances } = predictions.of(worth.test.id, worth.test.ref);
    let speaks = 0;
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
    if (outsideMass <= 0) continue;
    for (let k = 0; k < outcomes; k++) {
      const one = insideChance[k]! / insideMass;
      const other = outsideChance[k]! / outsideMass;
      if (one > 0) speaks += one * Math.log(one / Math.max(other, 1e-9));
    }
    if (speaks > Math.log(SUPPORTS) / 2) {
      scored.push({ worth, score: speaks / (worth.minutes + (worth.test.disturbs ? 1 : 0)) });
    }
  }
  return scored
    .sort((x, y) => y.score - x.score)
    .map((one) => one.worth)
    .slice(0, 4);
}
