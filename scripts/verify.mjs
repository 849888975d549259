/**
 * `npm run verify`: the long comparisons, whole, with their figures: every random network against ngspice, every fault of
 * every demo circuit and pattern, the rows of 100,000 entries, pages at every size, three minutes of kills. `npm test` has a shortened form of
 * each.
 */
import { CHROMIUM, ensureAllModules, ensurePackages, NGSPICE, POSTGRES } from './lib/setUp.mjs';
import { bin, Halt, run, say, show } from './lib/shell.mjs';
import { openTestBed } from './lib/testBed.mjs';

const LONG = [
  'core/network/spice',
  'core/network/solve',
  'core/diagnosis/everyFault',
  'core/notation/patternFaults',
  'core/diagnosis/consistency',
  'core/diagnosis/meaningsOfTrade',
  'core/diagnosis/habits',
  'core/change/planted',
];
/** Browser tests of which `npm test` plays a part: at the desk as well as in the hand, in every state. */
const LONG_IN_BROWSER = ['boxes', 'changes', 'circuits', 'feeds', 'widths'].map(
  (one) => `e2e/${one}.spec.ts`,
);
const KILL_SECONDS = 180;

async function main() {
  ensureAllModules();
  ensurePackages([POSTGRES, CHROMIUM, NGSPICE]);
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
    const browser = { ...(await bed.prepareBrowser()), EVERY_TRACE_WHOLE: '1' };
    await stage('in the browser', bin('playwright'), ['test', '--no-deps', ...LONG_IN_BROWSER], browser);
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
