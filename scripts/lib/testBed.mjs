/** A throwaway database cluster and a production build of their own, for tests and pictures. */
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensureCluster } from './cluster.mjs';
import { ensureBuild } from './setUp.mjs';
import { bin, run, say } from './shell.mjs';

export const TEST_BUILD = '.next-test';

export async function openTestBed() {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-test-'));
  // The server's own user has to get in.
  chmodSync(folder, 0o755);
  const cluster = await ensureCluster(folder, { throwaway: true });
  return {
    folder,
    adminUrl: cluster.admin,
    /** Builds the application and fills a template database; gives the environment for the browser. */
    async prepareBrowser() {
      await ensureBuild(TEST_BUILD);
      const template = cluster.url.replace(/\/[^/]*$/, '/demo_template');
      const env = { ...process.env, DATABASE_URL: template };
      say(run(bin('tsx'), ['scripts/migrate.ts', '--demo'], { env }).trim());
      return {
        ...process.env,
        NEXT_DIST_DIR: TEST_BUILD,
        E2E_TEMPLATE_URL: template,
        E2E_OUTPUT: path.join(folder, 'browser'),
      };
    },
    close(keep) {
      cluster.stop();
      if (keep) say(`What the failed run left is in ${folder}`);
      else rmSync(folder, { recursive: true, force: true });
    },
  };
}
