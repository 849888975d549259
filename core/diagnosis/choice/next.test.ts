/** The choice of the next test, worked out by hand. */
import { seeded } from '../../../testing/randomCircuit';
import type { TestPrediction } from '../evidence/testPrediction';
import type { TestCandidate } from '../tests';
import { type InPlay, rankTests } from './next';

/** Four suspects of equal chance, each a repair of its own. */
const FOUR: InPlay = {
  rows: Int32Array.of(0, 1, 2, 3),
  own: Int32Array.of(0, 1, 2, 3),
  chance: Float64Array.of(0.25, 0.25, 0.25, 0.25),
  group: Int32Array.of(0, 1, 2, 3),
  groupCount: 4,
  groups: [0, 1, 2, 3],
};

/** A test that says for sure on which side of a cut a suspect lies. */
function offered(id: string, minutes: number, sides: readonly (0 | 1)[], place: string | null = null) {
  const chances = Float32Array.from(sides.flatMap((side) => (side === 0 ? [1, 0] : [0, 1])));
  const test: TestCandidate = {
    id,
    ref: { kind: 'look', part: id },
    accesses: [{ place, lead: id, minutes }],
    disturbs: false,
    setUp: id,
    spot: id,
  };
  const prediction: TestPrediction = {
    ref: test.ref,
    outcomes: 2,
    chances,
    clean: chances,
    volts: null,
    swayed: null,
    ofLooseness: false,
    tells: true,
  };
  return { test, prediction };
}

const OPEN = { opened: new Set<string>(), minutesToOpen: () => 6 };
const order = (tests: Parameters<typeof rankTests>[0]) =>
  rankTests(tests, FOUR, OPEN).map((one) => one.test.id);

test('gain is what entropy falls by: a half is one bit, one of four 0.811', () => {
  const [half, quarter] = rankTests(
    [offered('half', 1, [0, 0, 1, 1]), offered('quarter', 1, [0, 1, 1, 1])],
    FOUR,
    OPEN,
  );
  expect(half).toMatchObject({ test: { id: 'half' }, minutes: 1 });
  expect(half!.gainBits).toBeCloseTo(1, 9);
  expect(quarter!.gainBits).toBeCloseTo(0.811, 3);
});

test('a cheap test that tells little does not go before one that settles half of it for a little more', () => {
  // Per minute the cheap one is ahead, 0.811 / 0.7 against 1 / 0.9; what it leaves has to be paid for as well.
  expect(order([offered('cheap', 0.7, [0, 1, 1, 1]), offered('half', 0.9, [0, 0, 1, 1])])).toEqual([
    'half',
    'cheap',
  ]);
  // At a tenth of the minutes it may go first all the same.
  expect(order([offered('cheap', 0.1, [0, 1, 1, 1]), offered('half', 3, [0, 0, 1, 1])])).toEqual([
    'cheap',
    'half',
  ]);
});

test('a test behind a closed cover waits for one that is as good and open; those that are needed share the opening', () => {
  const behind = (id: string, sides: readonly (0 | 1)[]) => offered(id, 1, sides, 'panel');
  expect(order([behind('closed', [0, 0, 1, 1]), offered('open', 2, [0, 0, 1, 1])])).toEqual([
    'open',
    'closed',
  ]);
  const [first] = rankTests(
    [behind('one', [0, 0, 1, 1]), behind('two', [0, 1, 0, 1]), behind('three', [0, 1, 1, 0])],
    FOUR,
    OPEN,
  );
  // Two bits of doubt take two tests of one bit each: a bit for 1 + 6 / 2 minutes; the card says the 7 that it takes.
  expect(first!.value).toBeCloseTo(1 / 4, 9);
  expect(first!.minutes).toBe(7);
});

test('a cover is shared by no more tests than the doubt asks for: what settles it all shares with none', () => {
  const TWO: InPlay = {
    ...FOUR,
    rows: Int32Array.of(0, 1),
    own: Int32Array.of(0, 1),
    chance: Float64Array.of(0.5, 0.5),
    group: Int32Array.of(0, 1),
    groupCount: 2,
    groups: [0, 1],
  };
  const behind = (id: string) => offered(id, 1, [0, 1], 'panel');
  const [first] = rankTests(
    [behind('one'), behind('two'), behind('three'), offered('open', 5, [0, 1])],
    TWO,
    OPEN,
  );
  // One bit for the 1 + 6 minutes that it takes, not for a third of the opening.
  expect(first).toMatchObject({ test: { id: 'open' }, minutes: 5 });
});

/** Expected minutes of the sequence that the choice makes, until one suspect is left or nothing tells more. */
function expectedMinutes(
  rows: readonly number[],
  weight: readonly number[],
  tests: readonly Cut[],
  opened: ReadonlySet<string>,
): number {
  if (rows.length < 2) return 0;
  const sum = rows.reduce((total, row) => total + weight[row]!, 0);
  const inPlay: InPlay = {
    rows: Int32Array.from(rows),
    own: Int32Array.from(rows),
    chance: Float64Array.from(rows, (row) => weight[row]! / sum),
    group: Int32Array.from(rows, (_, index) => index),
    groupCount: rows.length,
    groups: rows,
  };
  const [best] = rankTests(tests, inPlay, { opened, minutesToOpen: () => 4 });
  if (!best || best.gainBits < 1e-9) return 0;
  const chosen = tests.find((one) => one.test === best.test)!;
  const left = tests.filter((one) => one !== chosen);
  const open = best.place === null ? opened : new Set([...opened, best.place]);
  return [0, 1].reduce((minutes, side) => {
    const those = rows.filter((row) => chosen.sides[row] === side);
    const share = those.reduce((total, row) => total + weight[row]!, 0) / sum;
    return minutes + share * expectedMinutes(those, weight, left, open);
  }, best.minutes);
}

interface Cut extends ReturnType<typeof offered> {
  readonly sides: readonly (0 | 1)[];
}

test('another test on the list does not make the way longer', () => {
  const random = seeded(4711);
  let compared = 0;
  let sum = 0;
  for (let world = 0; world < 250; world++) {
    const count = 3 + Math.floor(5 * random());
    const weight = Array.from({ length: count }, () => 0.1 + random());
    const tests = Array.from({ length: 10 }, (_, index): Cut => {
      const sides = Array.from({ length: count }, () => (random() < 0.5 ? 0 : 1));
      const place = random() < 0.3 ? `cover ${Math.floor(2 * random())}` : null;
      return { ...offered(`t${index}`, 0.3 + 2 * random(), sides, place), sides };
    });
    const fewer = tests.slice(0, 9);
    // Where the nine tell all suspects apart: otherwise the tenth may tell more, and take its minutes for it.
    const rows = weight.map((_, row) => row);
    if (new Set(rows.map((row) => fewer.map((one) => one.sides[row]).join(''))).size < count) continue;
    const ratio =
      expectedMinutes(rows, weight, tests, new Set()) / expectedMinutes(rows, weight, fewer, new Set());
    // A choice that looks one test ahead is not the best possible one: to a twentieth.
    expect(ratio).toBeLessThan(1.05);
    sum += ratio;
    compared += 1;
  }
  expect(compared).toBeGreaterThan(150);
  expect(sum / compared).toBeLessThan(0.97);
});
