/** `npm run security`: every route and page from wrong positions, tries over two processes, sessions, headers, uploads, logs. */
import { CHROMIUM, ensureAllModules, ensurePackages, POSTGRES } from './lib/setUp.mjs';
import { bin, Halt, show } from './lib/shell.mjs';
import { openTestBed } from './lib/testBed.mjs';

async function main() {
  ensureAllModules();
  ensurePackages([POSTGRES, CHROMIUM]);
  const bed = await openTestBed();
  try {
    const env = { ...(await bed.prepareBrowser()), E2E_REPORT: `${bed.folder}/security.json` };
    process.exitCode = await show(bin('playwright'), ['test', '--no-deps', 'e2e/security.spec.ts'], { env });
  } finally {
    bed.close(false);
  }
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  process.exitCode = 1;
});
