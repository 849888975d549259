import { execFileSync } from 'node:child_process';
import path from 'node:path';
import type { PatternResult } from '../../bench/patternFaults';
import { so } from '../../testing/whole';
import { PATTERNS } from './patterns';

/** Every fault, or in the shortened form every third. */
const EVERY = so(1, 3);

const ROOT = path.resolve(__dirname, '../..');

test(`every single fault, or one in ${EVERY}, of every pattern, though nobody knows lengths, sizes, ratings and powers`, () => {
  const output = execFileSync(
    path.join(ROOT, 'node_modules/.bin/tsx'),
    ['bench/patternFaults.ts', '1', String(EVERY), 'lamp'],
    {
      cwd: ROOT,
      encoding: 'utf8',
    },
  );
  const results = JSON.parse(output) as PatternResult[];
  expect(results.map((one) => one.pattern)).toEqual(PATTERNS.map((one) => one.id));
  const sum = (field: 'played' | 'right' | 'proved' | 'provedWrong' | 'tests' | 'minutes') =>
    results.reduce((total, one) => total + one[field], 0);
  const played = sum('played');
  const share = (count: number) => `${((100 * count) / played).toFixed(1)} %`;
  process.stdout.write(
    `unmapped vehicles: ${played} faults of ${results.length} patterns, ${share(sum('right'))} right, ` +
      `${share(sum('proved'))} proved, ${share(sum('provedWrong'))} proved and wrong; ` +
      `${(sum('tests') / played).toFixed(1)} tests and ${(sum('minutes') / played).toFixed(1)} min each\n`,
  );
  expect(played).toBeGreaterThan(500 / EVERY);
  expect(sum('right') / played).toBeGreaterThan(0.97);
  expect(sum('provedWrong') / played).toBeLessThan(0.01);
  // No single pattern is bad and hidden in the sum.
  for (const one of results) expect(one.right / one.played).toBeGreaterThan(0.93);
});
