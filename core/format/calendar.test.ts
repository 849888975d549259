/** Days on which somebody comes back, and days in words. */
import { dayWords, dueProblem, putOffProblem } from './calendar';

test('a day stands on sheets as people write it', () => {
  expect(['2026-03-03', '2026-12-24', '2028-02-29'].map(dayWords)).toEqual([
    '3 Mar 2026',
    '24 Dec 2026',
    '29 Feb 2028',
  ]);
});

test('something is put off to a day that is still to come, and not to one nobody meant', () => {
  const today = '2026-12-02';
  expect(putOffProblem('2026-12-03', today)).toBeNull();
  expect(putOffProblem('2026-12-02', today)).toContain('2 Dec 2026 is not ahead');
  expect(putOffProblem('2020-12-03', today)).toContain('is not ahead');
  expect(putOffProblem('2090-12-03', today)).toContain('more than twenty years ahead');
  // What was due before may still be written down as that.
  expect(dueProblem('2026-11-30', today)).toBeNull();
});
