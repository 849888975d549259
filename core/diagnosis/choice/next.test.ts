/** The choice of the next test, worked out by hand. */
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

test('a test behind a closed cover waits for one that is as good and open; three of them share the opening', () => {
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
  // Bits for 1 + 6 / 3 minutes; the card says the 7 that it really takes.
  expect(first!.value).toBeCloseTo(1 / 3, 9);
  expect(first!.minutes).toBe(7);
});
