/**
 * `npm test`: everything that CI runs, on a machine with Node and nothing else. Its database, build folder and
 * ports are its own, so that it may run beside the demo and never touches .data/.
 */
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { secondsInWords, secondsOfBrowserTests, secondsOfUnitTests } from './lib/seconds.mjs';
import { ensureBrowserTests, NGSPICE } from './lib/setUp.mjs';
import { bin, Halt, hear, run, say, show } from './lib/shell.mjs';
import { DEMO_TEMPLATE, openTestBed } from './lib/testBed.mjs';

const counts = { passed: 0, failed: 0 };
const failedStages = [];
const started = Date.now();
const seconds = () => Math.round((Date.now() - started) / 1000);

function count(name, passed, failed) {
  counts.passed += passed;
  counts.failed += failed;
  if (failed > 0) failedStages.push(name);
}

function stage(name, command, args, env = process.env) {
  say(`\n— ${name}, from second ${seconds()}`);
  return show(command, args, { env });
}

/** Counts from a JSON report; a run that left none or failed outside its tests counts as one failure. */
function countReport(name, file, code, read) {
  if (!existsSync(file)) return count(name, 0, 1);
  const { passed, failed, files } = read(JSON.parse(readFileSync(file, 'utf8')));
  count(name, passed, code !== 0 && failed === 0 ? 1 : failed);
  say(`\n${name}, seconds of each file:\n${secondsInWords(files)}`);
}

async function main() {
  ensureBrowserTests([NGSPICE]);
  run(bin('tsx'), ['scripts/build-schemas.ts']);
  const bed = await openTestBed();
  try {
    say(`\n— lint and types, from second ${seconds()}`);
    const demo = bed.demo();
    const checks = [
      ['lint and layers', bin('biome'), ['ci', '.', '--error-on-warnings']],
      ['exports and packages without use', bin('knip'), ['--no-progress']],
      ['types of the core', bin('tsc'), ['-p', 'core']],
      ['types', bin('tsc'), ['-p', '.']],
    ].map(async ([name, command, args]) => [name, await hear(command, args)]);
    for (const check of checks) {
      const [name, { code, said }] = await check;
      say(`${name}: ${code === 0 ? 'clean' : 'not clean'}\n${said}`.trim());
      count(name, code === 0 ? 1 : 0, code === 0 ? 0 : 1);
    }
    await demo;
    const unitReport = path.join(bed.folder, 'jest.json');
    const unit = await stage('unit and database', bin('jest'), ['--json', `--outputFile=${unitReport}`], {
      ...process.env,
      TEST_DATABASE_URL: bed.adminUrl,
      UNIT_TEMPLATE: DEMO_TEMPLATE,
    });
    countReport('unit and database', unitReport, unit, (report) => ({
      passed: report.numPassedTests,
      failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
      files: secondsOfUnitTests(report),
    }));
    say(`\n— build, from second ${seconds()}`);
    const browserReport = path.join(bed.folder, 'browser.json');
    const env = { ...(await bed.prepareBrowser()), E2E_REPORT: browserReport };
    const browser = await stage('browser', bin('playwright'), ['test', ...process.argv.slice(2)], env);
    countReport('browser', browserReport, browser, (report) => ({
      passed: report.stats.expected + report.stats.flaky,
      failed: report.stats.unexpected,
      files: secondsOfBrowserTests(report),
    }));
  } finally {
    bed.close(counts.failed > 0);
  }
  const failed = failedStages.length > 0 ? `; failed: ${failedStages.join(', ')}` : '';
  say(`\n${seconds()} s${failed}`);
  say(`${counts.passed} passed, ${counts.failed} failed`);
  process.exitCode = counts.failed === 0 ? 0 : 1;
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  say(`${counts.passed} passed, ${counts.failed + 1} failed`);
  process.exitCode = 1;
});
