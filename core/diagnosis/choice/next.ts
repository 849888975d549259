/**
 * Chooses the next test: expected fall of entropy over repair groups, less its expected minutes at a price. The price is
 * a share of what the best test of now gains a minute: later tests gain more slowly, so a minute spent now is worth less
 * than that (Dinkelbach 1967 for ratios; with a share of one it is plain gain per minute).
 */

import type { CircuitFile } from '../../format';
import type { TestPrediction } from '../evidence/testPrediction';
import { DISTURBING_MINUTES, type TestCandidate } from '../tests';

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
/** Share of the best gain a minute of now that a minute counts for. */
const PRICE_SHARE = 0.4;

function entropyTerm(p: number): number {
  return p > 0 ? -p * Math.log2(p) : 0;
}

/** What a choice is made over: rows of the predictions with their chances, and the repair group of each. */
export interface InPlay {
  /** Row of the predictions; a fault that comes and goes has two, its own and the sound circuit's. */
  readonly rows: Int32Array;
  /** Row of the hypothesis itself, also while its fault is away. */
  readonly own: Int32Array;
  readonly chance: Float64Array;
  /** Numbered without gaps. */
  readonly group: Int32Array;
  readonly groupCount: number;
  /** The repair group behind each number. */
  readonly groups: readonly number[];
}

/**
 * The hypotheses that still count. `presentNow` gives, for a fault that comes and goes, the chance that it is
 * there now and null for any other; while it is away the circuit reads as sound.
 */
export function rowsInPlay(
  p: Float64Array,
  groupOf: Int32Array,
  soundRow: number,
  presentNow: (h: number) => number | null,
): InPlay {
  const rows: number[] = [];
  const own: number[] = [];
  const chance: number[] = [];
  const group: number[] = [];
  const numbers = new Map<number, number>();
  const add = (row: number, h: number, weight: number, g: number) => {
    if (weight <= NEGLIGIBLE) return;
    if (!numbers.has(g)) numbers.set(g, numbers.size);
    rows.push(row);
    own.push(h);
    chance.push(weight);
    group.push(numbers.get(g)!);
  };
  for (let h = 0; h < p.length; h++) {
    if (p[h]! <= NEGLIGIBLE) continue;
    const present = presentNow(h);
    add(h, h, p[h]! * (present ?? 1), groupOf[h]!);
    if (present !== null) add(soundRow, h, p[h]! * (1 - present), groupOf[h]!);
  }
  return {
    rows: Int32Array.from(rows),
    own: Int32Array.from(own),
    chance: Float64Array.from(chance),
    group: Int32Array.from(group),
    groupCount: numbers.size,
    groups: [...numbers.keys()],
  };
}

/** Reusable numbers for expected entropies. */
class Scratch {
  joint = new Float64Array(64);
  total = new Float64Array(32);

  fit(size: number, outcomes: number): void {
    if (this.joint.length < size) this.joint = new Float64Array(2 * size);
    if (this.total.length < outcomes) this.total = new Float64Array(2 * outcomes);
  }
}

/** The rows that a test is read from. */
export function rowsFor({ ofLooseness }: TestPrediction, { rows, own }: InPlay): Int32Array {
  return ofLooseness ? own : rows;
}

/** Expected entropy over groups after a test, bits. */
function expectedEntropy(
  prediction: TestPrediction,
  chances: Float32Array,
  inPlay: InPlay,
  scratch: Scratch,
): number {
  const { outcomes } = prediction;
  const { chance, group, groupCount } = inPlay;
  const rows = rowsFor(prediction, inPlay);
  const size = groupCount * outcomes;
  scratch.fit(size, outcomes);
  const { joint, total } = scratch;
  joint.fill(0, 0, size);
  total.fill(0, 0, outcomes);
  for (let m = 0; m < rows.length; m++) {
    const weight = chance[m]!;
    const at = group[m]! * outcomes;
    const row = rows[m]! * outcomes;
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

/** Doubt over repair groups, bits. */
export function entropyNow({ chance, group, groupCount }: InPlay): number {
  const mass = new Float64Array(groupCount);
  for (let m = 0; m < chance.length; m++) mass[group[m]!] = mass[group[m]!]! + chance[m]!;
  let now = 0;
  for (const one of mass) now += entropyTerm(one);
  return now;
}

export interface ChoiceContext {
  readonly minutesToOpen: (place: string) => number;
  readonly opened: ReadonlySet<string>;
}

/** What is open, and what the covers of a circuit cost. */
export function contextOf({ places }: Pick<CircuitFile, 'places'>, opened: readonly string[]): ChoiceContext {
  const minutes = new Map(places.map((place) => [place.id, place.minutesToOpen]));
  return { opened: new Set(opened), minutesToOpen: (place) => minutes.get(place) ?? 0 };
}

export interface Offered {
  readonly test: TestCandidate;
  readonly prediction: TestPrediction;
}

/** Minutes that a test counts for from its best access, a closed cover shared by so many tests. */
function bestAccess(
  test: TestCandidate,
  context: ChoiceContext,
  sharers: (place: string) => number,
): { counted: number; minutes: number; place: string | null; lead: string } {
  let best: { counted: number; minutes: number; place: string | null; lead: string } | null = null;
  for (const access of test.accesses) {
    const closed = access.place !== null && !context.opened.has(access.place);
    const opening = closed && access.place ? context.minutesToOpen(access.place) : 0;
    const share = access.place ? sharers(access.place) : 1;
    const counted = access.minutes + opening / share + (test.disturbs ? DISTURBING_MINUTES : 0);
    if (!best || counted < best.counted) {
      best = { counted, minutes: access.minutes + opening, place: access.place, lead: access.lead };
    }
  }
  return best!;
}

/**
 * How many tests behind a cover share its opening, as a set: those that are worth about as much, and no more of them than
 * the doubt that is left, bits, asks for.
 */
function coverSharing(tests: readonly Offered[], gains: readonly number[], now: number) {
  const useful = new Map<string, number[]>();
  tests.forEach(({ test }, index) => {
    for (const { place } of test.accesses) {
      if (place !== null) useful.set(place, [...(useful.get(place) ?? []), gains[index]!]);
    }
  });
  return (place: string, gain: number) => {
    const alike = (useful.get(place) ?? []).filter((other) => other >= gain / 2 && gain > 0).length;
    const needed = gain > 0 ? Math.round(now / gain) : 1;
    return Math.max(1, Math.min(SHARED_BY, alike, needed));
  };
}

/** What is looked at again in the light of the readings, at most so often a choice. */
const LOOKED_AT_AGAIN = 24;
/** Hypotheses below this chance are not looked at again. */
const HARDLY = 2e-3;

/** The rows that are looked at again in the light of the readings. */
export function likelyRows({ rows, chance }: InPlay): Int32Array {
  return rows.filter((_, m) => chance[m]! >= HARDLY);
}

/** Volts by which two points differ alike under every hypothesis: reading one then says what the other would. */
const ALIKE_VOLTS = 0.05;

/** Whether two readings of volts in one set-up tell the same hypotheses apart by the same volts. */
function isAlike(one: Offered, other: Offered, rows: Int32Array): boolean {
  const a = one.prediction.volts;
  const b = other.prediction.volts;
  if (!a || !b || one.test.setUp !== other.test.setUp) return false;
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (const h of rows) {
    if (a.floating[h] !== b.floating[h]) return false;
    const apart = a.mean[h]! - b.mean[h]!;
    low = Math.min(low, apart);
    high = Math.max(high, apart);
    if (high - low > ALIKE_VOLTS) return false;
  }
  return true;
}

/**
 * Values every test, best first; ties go to the less intrusive. Chances from before any reading make two neighbouring
 * points look as good as one: whatever comes out best is looked at again with `given`, the chances that the readings
 * leave, until the best is one that was.
 */
export function rankTests(
  tests: readonly Offered[],
  inPlay: InPlay,
  context: ChoiceContext,
  given?: (test: TestCandidate, rows: Int32Array) => Float32Array,
): TestWorth[] {
  const scratch = new Scratch();
  const now = entropyNow(inPlay);
  const gainOf = (prediction: TestPrediction, chances = prediction.chances) =>
    Math.max(0, now - expectedEntropy(prediction, chances, inPlay, scratch));
  const gains = tests.map(({ prediction }) => gainOf(prediction));
  const sharing = coverSharing(tests, gains, now);
  const value = (index: number, gainBits: number) => {
    const { test } = tests[index]!;
    const { counted, minutes, place, lead } = bestAccess(test, context, (at) => sharing(at, gainBits));
    return { index, counted, worth: { test, gainBits, minutes, value: gainBits / counted, place, lead } };
  };
  const valued = tests.map((_, index) => value(index, gains[index]!));
  type Valued = (typeof valued)[number];
  const most = (of: (one: Valued) => number) =>
    valued.reduce<Valued | null>((best, one) => (best === null || of(one) > of(best) ? one : best), null);
  const priceNow = () => PRICE_SHARE * (most(({ worth }) => worth.value)?.worth.value ?? 0);
  const net = ({ worth, counted }: Valued, price: number) => worth.gainBits - price * counted;
  const again = new Set<number>();
  const likely = likelyRows(inPlay);
  for (let count = 0; given && count < LOOKED_AT_AGAIN; count++) {
    const price = priceNow();
    const best = [most(({ worth }) => worth.value), most((one) => net(one, price))].find(
      (one) => one && !again.has(one.index),
    );
    if (!best) break;
    const { prediction } = tests[best.index]!;
    again.add(best.index);
    const chances = given(tests[best.index]!.test, likely);
    if (chances === prediction.chances) continue;
    const gain = gainOf(prediction, chances);
    const left = gain / best.worth.gainBits;
    valued[best.index] = value(best.index, gain);
    tests.forEach((other, index) => {
      if (again.has(index) || !isAlike(tests[best.index]!, other, likely)) return;
      again.add(index);
      valued[index] = value(index, gains[index]! * left);
    });
  }
  const price = priceNow();
  return valued
    .sort(
      (x, y) =>
        net(y, price) - net(x, price) ||
        Number(x.worth.test.disturbs) - Number(y.worth.test.disturbs) ||
        (x.worth.test.id < y.worth.test.id ? -1 : 1),
    )
    .map(({ worth }) => worth);
}
