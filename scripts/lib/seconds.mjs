/** Seconds that each test file took, from the reports of Jest and Playwright: what to look at when a run has become slow. */
import path from 'node:path';
import { root } from './shell.mjs';

/** Of a report of Jest: from the start of a file to its end, its imports among it. */
export function secondsOfUnitTests(report) {
  return report.testResults.map(({ name, startTime, endTime }) => ({
    file: path.relative(root, name),
    seconds: (endTime - startTime) / 1000,
  }));
}

/** Of a report of Playwright: all tests of a file, added up; they may have run beside each other. */
export function secondsOfBrowserTests(report) {
  const sums = new Map();
  const walk = (suite) => {
    for (const one of suite.suites ?? []) walk(one);
    for (const spec of suite.specs ?? []) {
      for (const { results } of spec.tests) {
        const spent = results.reduce((sum, { duration }) => sum + duration, 0);
        sums.set(spec.file, (sums.get(spec.file) ?? 0) + spent / 1000);
      }
    }
  };
  for (const suite of report.suites) walk(suite);
  return [...sums].map(([file, seconds]) => ({ file, seconds }));
}

/** Lines of a table, slowest first; files that took less than a second are counted only. */
export function secondsInWords(all) {
  const slowest = all.filter(({ seconds }) => seconds >= 1).sort((x, y) => y.seconds - x.seconds);
  const lines = slowest.map(({ file, seconds }) => `${seconds.toFixed(0).padStart(5)} s  ${file}`);
  const rest = all.length - slowest.length;
  return [...lines, ...(rest > 0 ? [`${rest} files took less than a second each`] : [])].join('\n');
}
