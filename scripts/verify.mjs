/**
 * `npm run verify`: the long comparisons, whole, with their figures: every random network against ngspice, every fault of
 * every demo circuit and pattern, the rows of 100,000 entries, three minutes of kills. `npm test` has a shortened form of
 * each.
 */
import { ensureModules, ensurePackages, NGSPICE, POSTGRES } from './lib/setUp.mjs';
import { bin, Halt, run, say, show } from './lib/shell.mjs';
import { openTestBed } from './lib/testBed.mjs';

const LONG = ['core/network/spice', 'core/diagnosis/everyFault', 'core/notation/patternFaults'];
const KILL_SECONDS = 180;

async function main() {
  ensureModules();
  ensurePackages([POSTGRES, NGSPICE]);
  run(bin('tsx'), ['scripts/build-schemas.ts']);
  const bed = await openTestBed();
  const failed = [];
  const stage = async (name, command, args, env) => {
    say(`\n— ${name}`);
    if ((await show(command, args, { env: { ...process.env, ...env } })) !== 0) failed.push(name);
  };
  try {
    await stage('comparisons', bin('jest'), LONG, {
      EVERY_TRACE_WHOLE: '1',
      TEST_DATABASE_URL: bed.adminUrl,
    });
    const rows = { DATABASE_URL: bed.adminUrl.replace(/\/[^/]*$/, '/verify_rows') };
    run(bin('tsx'), ['scripts/migrate.ts'], { env: { ...process.env, ...rows } });
    await stage('rows of 100,000 entries', bin('tsx'), ['scripts/verifyRows.ts'], rows);
    await stage('kills', process.execPath, ['scripts/kills.mjs', String(KILL_SECONDS)], {});
  } finally {
    bed.close(failed.length > 0);
  }
  say(failed.length === 0 ? '\nall verified' : `\nfailed: ${failed.join(', ')}`);
  process.exitCode = failed.length === 0 ? 0 : 1;
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  process.exitCode = 1;
});
