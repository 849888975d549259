/**
 * `npm test`: everything that CI runs, on a machine with Node and nothing else. Its database, build folder and
 * ports are its own, so that it may run beside the demo and never touches .data/.
 */
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensureCluster } from './lib/cluster.mjs';
import { CHROMIUM, ensureBuild, ensureModules, ensurePackages, POSTGRES } from './lib/setUp.mjs';
import { bin, Halt, run, say, show } from './lib/shell.mjs';

const counts = { passed: 0, failed: 0 };
const failedStages = [];

function count(name, passed, failed) {
  counts.passed += passed;
  counts.failed += failed;
  if (failed > 0) failedStages.push(name);
}

async function stage(name, command, args, env) {
  say(`\n— ${name}`);
  const code = await show(command, args, { env: env ?? process.env });
  return code;
}

/** Counts from a JSON report; a run that left none or failed outside its tests counts as one failure. */
function countReport(name, file, code, read) {
  if (!existsSync(file)) return count(name, 0, 1);
  const { passed, failed } = read(JSON.parse(readFileSync(file, 'utf8')));
  count(name, passed, code !== 0 && failed === 0 ? 1 : failed);
}

async function main() {
  const started = Date.now();
  ensureModules();
  ensurePackages([POSTGRES, CHROMIUM]);
  run(bin('tsx'), ['scripts/build-schemas.ts']);
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-test-'));
  chmodSync(folder, 0o755);
  const cluster = await ensureCluster(folder);
  try {
    for (const [name, command, args] of [
      ['lint and layers', bin('biome'), ['ci', '.', '--error-on-warnings']],
      ['types of the core', bin('tsc'), ['-p', 'core']],
      ['types', bin('tsc'), ['-p', '.']],
    ]) {
      const code = await stage(name, command, args);
      count(name, code === 0 ? 1 : 0, code === 0 ? 0 : 1);
    }
    const jestReport = path.join(folder, 'jest.json');
    const unit = await stage('unit and database', bin('jest'), ['--json', `--outputFile=${jestReport}`], {
      ...process.env,
      TEST_DATABASE_URL: cluster.admin,
    });
    countReport('unit and database', jestReport, unit, (report) => ({
      passed: report.numPassedTests,
      failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
    }));
    await ensureBuild('.next-test');
    const template = cluster.url.replace(/\/[^/]*$/, '/demo_template');
    say(
      run(bin('tsx'), ['scripts/migrate.ts', '--demo'], {
        env: { ...process.env, DATABASE_URL: template },
      }).trim(),
    );
    const report = path.join(folder, 'browser.json');
    const browser = await stage('browser', bin('playwright'), ['test', ...process.argv.slice(2)], {
      ...process.env,
      NEXT_DIST_DIR: '.next-test',
      E2E_TEMPLATE_URL: template,
      E2E_REPORT: report,
      E2E_OUTPUT: path.join(folder, 'browser'),
    });
    countReport('browser', report, browser, ({ stats }) => ({
      passed: stats.expected + stats.flaky,
      failed: stats.unexpected,
    }));
  } finally {
    cluster.stop();
    if (counts.failed === 0) rmSync(folder, { recursive: true, force: true });
    else say(`What the failed run left is in ${folder}`);
  }
  say(
    `\n${Math.round((Date.now() - started) / 1000)} s${failedStages.length > 0 ? `; failed: ${failedStages.join(', ')}` : ''}`,
  );
  say(`${counts.passed} passed, ${counts.failed} failed`);
  process.exitCode = counts.failed === 0 ? 0 : 1;
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  say(`${counts.passed} passed, ${counts.failed + 1} failed`);
  process.exitCode = 1;
});
