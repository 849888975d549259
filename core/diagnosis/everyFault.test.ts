import { execFileSync } from 'node:child_process';
import path from 'node:path';
import type { DemoResult } from '../../bench/everyDemoFault';
import { DEMO_CIRCUITS } from '../../testing/circuits';
import { so } from '../../testing/whole';

/** Every fault, or in the shortened form every tenth. */
const EVERY = so(1, 10);

const ROOT = path.resolve(__dirname, '../..');

describe(`every single fault, or one in ${EVERY}, of every demo circuit, by the engine’s own proposals`, () => {
  test.each(DEMO_CIRCUITS)('%s', (name) => {
    const output = execFileSync(
      path.join(ROOT, 'node_modules/.bin/tsx'),
      ['bench/everyDemoFault.ts', name, String(EVERY)],
      {
        cwd: ROOT,
        encoding: 'utf8',
      },
    );
    const { played, proved, wrong, tests, minutes, habitMinutes } = JSON.parse(output) as DemoResult;
    process.stdout.write(
      `${name}: ${played} faults, ${played - wrong.length} right, ${proved} proved; ` +
        `${(tests / played).toFixed(1)} tests and ${(minutes / played).toFixed(1)} min each, ` +
        `by habit ${(habitMinutes / played).toFixed(1)} min; ` +
        `minutes ${((100 * minutes) / habitMinutes).toFixed(0)} % of habit\n`,
    );
    expect(wrong).toEqual([]);
    expect(played).toBeGreaterThan(100 / EVERY);
    expect(minutes).toBeLessThan(0.55 * habitMinutes);
  });
});
