/** `npm run shots`: one current picture of each main view, from the demo data, into docs/screenshots. */
import { CHROMIUM, ensureAllModules, ensurePackages, POSTGRES } from './lib/setUp.mjs';
import { bin, Halt, show } from './lib/shell.mjs';
import { openTestBed } from './lib/testBed.mjs';

async function main() {
  ensureAllModules();
  ensurePackages([POSTGRES, CHROMIUM]);
  const bed = await openTestBed();
  try {
    const env = { ...(await bed.prepareBrowser()), E2E_REPORT: `${bed.folder}/shots.json`, E2E_SHOTS: 'yes' };
    process.exitCode = await show(bin('playwright'), ['test', 'shots.shot.ts'], { env });
  } finally {
    bed.close(false);
  }
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  process.exitCode = 1;
});
