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
const NEGLIGIBLE = 1e-5;
/** At most this many tests behind one cover share its opening minutes. */
const SHARED_BY = 3;

function entropyTerm(p: number): number {
  return p > 0 ? -p * Math.log2(p) : 0;
}

/** The hypotheses that still count, their groups numbered anew without gaps. */
interface Live {
  readonly members: Int32Array;
  readonly chance: Float64Array;
  readonly group: Int32Array;
  readonly groupCount: number;
}

function liveHypotheses(p: Float64Array, groupOf: Int32Array): Live {
  const members: number[] = [];
  const numbers = new Map<number, number>();
  for (let h = 0; h < p.length; h++) {
    if (p[h]! <= NEGLIGIBLE) continue;
    members.push(h);
    const group = groupOf[h]!;
    if (!numbers.has(group)) numbers.set(group, numbers.size);
  }
  return {
    members: Int32Array.from(members),
    chance: Float64Array.from(members, (h) => p[h]!),
    group: Int32Array.from(members, (h) => numbers.get(groupOf[h]!)!),
    groupCount: numbers.size,
  };
}

/** Expected entropy over groups after a test, bits. `joint` and `total` are scratch of sufficient size. */
function expectedEntropy(
  prediction: TestPrediction,
  live: Live,
  joint: Float64Array,
  total: Float64Array,
): number {
  const { outcomes, chances } = prediction;
  const { members, chance, group, groupCount } = live;
  const size = groupCount * outcomes;
  joint.fill(0, 0, size);
  total.fill(0, 0, outcomes);
  for (let m = 0; m < members.length; m++) {
    const weight = chance[m]!;
    const at = group[m]! * outcomes;
    const row = members[m]! * outcomes;
    for (let k = 0; k < outcomes; k++) {
      const mass = weight * chances[row + k]!;
      joint[at + k] = joint[at + k]! + mass;
      total[k] = total[k]! + mass;
    }
  }
  let entropy = 0;
  for (let i = 0; i < size; i++) entropy += entropyTerm(joint[i]!);
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
  context: ChoiceContext,
): TestWorth[] {
  const live = liveHypotheses(p, groupOf);
  const groupMass = new Float64Array(live.groupCount);
  for (let m = 0; m < live.members.length; m++) {
    groupMass[live.group[m]!] = groupMass[live.group[m]!]! + live.chance[m]!;
  }
  let now = 0;
  for (const mass of groupMass) now += entropyTerm(mass);
  const mostOutcomes = tests.reduce((most, { prediction }) => Math.max(most, prediction.outcomes), 1);
  const joint = new Float64Array(live.groupCount * mostOutcomes);
  const total = new Float64Array(mostOutcomes);
  const gains = tests.map(({ prediction }) =>
    Math.max(0, now - expectedEntropy(prediction, live, joint, total)),
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
