import type { PartStanding } from './assessment';
import { bracketOf, bracketWords } from './bracket';
import type { Run } from './run';

const PARTS = ['B', 'F', 'R', 'W', 'M', 'G'];
const run: Run = {
  id: 'run',
  name: 'Fan',
  stops: PARTS.map((_, index) => `n${index}`).concat('earth'),
  stations: PARTS.map((part) => ({ part, name: part, kind: 'wire' })),
};
const bracket = (chances: Readonly<Record<string, number>>) =>
  bracketOf(
    run,
    new Map(
      Object.entries(chances).map(([part, chance]): [string, PartStanding] => [
        part,
        { part, chance, standing: 'open', clearedBy: null, remaining: [] },
      ]),
    ),
  );

test('it reaches from the first suspect to the last, stops before and behind them', () => {
  expect(bracket({ R: 0.3, W: 0.6, G: 0.01 })).toEqual([2, 4]);
  expect(bracket({ W: 0.97 })).toEqual([3, 4]);
  expect(bracket({ B: 0.9 })).toEqual([0, 1]);
});

test('no bracket while the whole run is left, or nothing of it', () => {
  expect(bracket({ B: 0.2, F: 0.3, G: 0.4 })).toBeNull();
  expect(bracket({})).toBeNull();
});

test('no bracket where the fault may as well lie on another run', () => {
  expect(bracket({ R: 0.3, W: 0.2 })).toBeNull();
});

test('in words it is named by the parts that are still sound on either side', () => {
  expect(bracketWords(run, [2, 4])).toBe('Between F and M');
  expect(bracketWords(run, [0, 2])).toBe('Between the source and R');
  expect(bracketWords(run, [3, 6])).toBe('Between R and the end of the run');
});
