/**
 * `npm run test:again -- RUNS [PATTERN …]`: the browser tests RUNS times, each time in another order, every second time
 * beside a process that keeps one core busy. Prints every test that ever failed, with the seeds of its runs. PATTERN is as
 * for Playwright: a file, a file with its line, or `-g WORDS`. `--seed=N` begins with that order.
 */
import { spawn } from 'node:child_process';
import { randomInt } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { ensureBrowserTests } from './lib/setUp.mjs';
import { bin, Halt, say, show } from './lib/shell.mjs';
import { openTestBed } from './lib/testBed.mjs';

/** Tests of a report that did not pass, each with the first line of why. */
function failuresIn(report) {
  const found = [];
  const walk = (suite, names) => {
    const own = suite.file === suite.title ? names : [...names, suite.title];
    for (const one of suite.suites ?? []) walk(one, own);
    for (const spec of suite.specs ?? []) {
      for (const { results } of spec.tests) {
        const bad = results.find(({ status }) => status !== 'passed' && status !== 'skipped');
        if (!bad) continue;
        const why = (bad.error?.message ?? bad.status).split('\n').slice(0, 6).join('\n      ');
        found.push({ name: [`${spec.file}:${spec.line}`, ...own, spec.title].join(' › '), why });
      }
    }
  };
  for (const suite of report.suites) walk(suite, []);
  return found;
}

/** Keeps one core busy until it is ended. */
function busyCore() {
  return spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' });
}

async function playOnce(run, seed, patterns, env, folder) {
  const report = path.join(folder, `run-${run}.json`);
  const busy = run % 2 === 0 ? busyCore() : null;
  const began = Date.now();
  say(`\n— run ${run}, seed ${seed}${busy ? ', beside a busy core' : ''}`);
  try {
    // Of a few tests only those: what runs alone would bring all others along.
    const few = patterns.length > 0 ? ['--no-deps'] : [];
    await show(bin('playwright'), ['test', `--shuffle=${seed}`, '--retries=0', ...few, ...patterns], {
      env: { ...env, E2E_REPORT: report, E2E_QUIET: '1' },
    });
  } finally {
    busy?.kill('SIGKILL');
  }
  if (!existsSync(report)) throw new Halt('The run left no report; see above.');
  const read = JSON.parse(readFileSync(report, 'utf8'));
  const failures = [
    ...failuresIn(read),
    ...read.errors.map(({ message }) => ({ name: 'outside the tests', why: message })),
  ];
  const { expected, unexpected, skipped } = read.stats;
  say(
    `run ${run}: ${expected} passed, ${unexpected} failed, ${skipped} not run, ${Math.round((Date.now() - began) / 1000)} s`,
  );
  return failures;
}

async function main() {
  const args = process.argv.slice(2);
  const runs = Number(args.find((one) => /^\d+$/.test(one)) ?? Number.NaN);
  if (!(runs >= 1)) throw new Halt('Say how often: npm run test:again -- 10 [PATTERN]');
  const first = args.find((one) => one.startsWith('--seed='));
  const patterns = args.filter((one) => one !== String(runs) && one !== first);
  ensureBrowserTests();
  const bed = await openTestBed();
  const failed = new Map();
  try {
    const env = await bed.prepareBrowser();
    for (let run = 1; run <= runs; run++) {
      const seed = first && run === 1 ? Number(first.slice('--seed='.length)) : randomInt(1, 1_000_000);
      for (const { name, why } of await playOnce(run, seed, patterns, env, bed.folder)) {
        failed.set(name, [...(failed.get(name) ?? []), { run, seed, why }]);
      }
    }
  } finally {
    bed.close(failed.size > 0);
  }
  for (const [name, all] of failed) {
    say(`\n${name}`);
    for (const { run, seed, why } of all) say(`  run ${run}, seed ${seed}:\n      ${why}`);
  }
  say(failed.size === 0 ? `\nno failure in ${runs} runs` : `\n${failed.size} tests failed at least once`);
  process.exitCode = failed.size === 0 ? 0 : 1;
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  process.exitCode = 1;
});
