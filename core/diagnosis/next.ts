/** Chooses the next test: expected fall of entropy over repair groups, per expected minute. */

import type { TestPrediction } from './predictions';
import { DISTURBING_MINUTES, type TestCandidate } from './tests';

export interface TestWorth {
  readonly test: TestCandidate;
  /** Expected fall of entropy over repair groups, bits. */
  readonly gainBits: number;
  /** Minutes for this test now, opening included. */
  readonly minutes: number;
  /** Bits per minute, an unopened cover shared among the tests behind it. */
  readonly value: number;
  readonly place: string | null;
  readonly lead: string;
}

/** Hypotheses below this chance do not change the choice. */
const NEGLIGIBLE = 1e-6;
/** At most this many tests behind one cover share its opening minutes. */
const SHARED_BY = 3;

function entropyTerm(p: number): number {
  return p > 0 ? -p * Math.log2(p) : 0;
}

/** Expected entropy over groups after a test, bits; `p` over hypotheses, `groupOf` by hypothesis. */
export function expectedEntropy(
  prediction: TestPrediction,
  p: Float64Array,
  groupOf: Int32Array,
  groupCount: number,
  live: readonly number[],
): number {
  const { outcomes, chances } = prediction;
  const joint = new Float64Array(groupCount * outcomes);
  const total = new Float64Array(outcomes);
  for (const h of live) {
    const weight = p[h]!;
    const at = groupOf[h]! * outcomes;
    const row = h * outcomes;
    for (let k = 0; k < outcomes; k++) {
      const mass = weight * chances[row + k]!;
      joint[at + k] = joint[at + k]! + mass;
      total[k] = total[k]! + mass;
    }
  }
  let entropy = 0;
  for (let i = 0; i < joint.length; i++) entropy += entropyTerm(joint[i]!);
  for (let k = 0; k < outcomes; k++) entropy -= entropyTerm(total[k]!);
  return Math.max(0, entropy);
}

export interface ChoiceContext {
  readonly minutesToOpen: (place: string) => number;
  readonly opened: ReadonlySet<string>;
}

/** Values every test, best first; ties go to the less intrusive. */
export function rankTests(
  tests: readonly { test: TestCandidate; prediction: TestPrediction }[],
  p: Float64Array,
  groupOf: Int32Array,
  groupCount: number,
  context: ChoiceContext,
): TestWorth[] {
  const live: number[] = [];
  const groupMass = new Float64Array(groupCount);
  for (let h = 0; h < p.length; h++) {
    if (p[h]! > NEGLIGIBLE) live.push(h);
    groupMass[groupOf[h]!] = groupMass[groupOf[h]!]! + p[h]!;
  }
  let now = 0;
  for (let g = 0; g < groupCount; g++) now += entropyTerm(groupMass[g]!);
  const gains = tests.map(({ prediction }) =>
    Math.max(0, now - expectedEntropy(prediction, p, groupOf, groupCount, live)),
  );
  const useful = new Map<string, number[]>();
  tests.forEach(({ test }, index) => {
    for (const access of test.accesses) {
      if (access.place === null) continue;
      const list = useful.get(access.place) ?? [];
      list.push(gains[index]!);
      useful.set(access.place, list);
    }
  });
  const shareOf = new Map<string, (gain: number) => number>();
  for (const [place, list] of useful) {
    list.sort((x, y) => y - x);
    shareOf.set(place, (gain) => {
      const alike = list.filter((other) => other >= gain / 2 && gain > 0).length;
      return Math.max(1, Math.min(SHARED_BY, alike));
    });
  }
  const worth = tests.map(({ test }, index): TestWorth => {
    const gain = gains[index]!;
    let best: TestWorth | null = null;
    for (const access of test.accesses) {
      const closed = access.place !== null && !context.opened.has(access.place);
      const opening = closed && access.place ? context.minutesToOpen(access.place) : 0;
      const share = access.place ? (shareOf.get(access.place)?.(gain) ?? 1) : 1;
      const counted = access.minutes + opening / share + (test.disturbs ? DISTURBING_MINUTES : 0);
      const value = gain / counted;
      if (!best || value > best.value) {
        best = {
          test,
          gainBits: gain,
          minutes: access.minutes + opening,
          value,
          place: access.place,
          lead: access.lead,
        };
      }
    }
    return best!;
  });
  return worth.sort(
    (x, y) =>
      y.value - x.value ||
      Number(x.test.disturbs) - Number(y.test.disturbs) ||
      (x.test.id < y.test.id ? -1 : 1),
  );
}
