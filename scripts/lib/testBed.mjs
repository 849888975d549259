/** A throwaway database cluster and a production build of their own, for tests and pictures. */
import { chmodSync, existsSync, mkdirSync, mkdtempSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensureCluster } from './cluster.mjs';
import { ensureBuild } from './setUp.mjs';
import { bin, Halt, hear, root, say } from './shell.mjs';

const TEST_BUILD = '.next-test';
/** Database that holds the demo and is only copied. */
export const DEMO_TEMPLATE = 'demo_template';

/** Files of the system that are kept in memory: a database is copied there in a tenth of the time that a disk takes. */
const MEMORY = '/dev/shm';
const MEMORY_BYTES = 4 * 1024 ** 3;

/** Where throwaway files go: into memory where there is room for them. */
function throwawayPlace() {
  if (!existsSync(MEMORY)) return tmpdir();
  const { bavail, bsize } = statfsSync(MEMORY);
  return bavail * bsize >= MEMORY_BYTES ? MEMORY : tmpdir();
}

/** Everything that a run writes is in one folder and goes with it; what is compiled stays for the next run. */
function ownFolder() {
  const folder = mkdtempSync(path.join(throwawayPlace(), 'every-trace-test-'));
  // The server's own user has to get in.
  chmodSync(folder, 0o755);
  const files = path.join(folder, 'tmp');
  mkdirSync(files);
  chmodSync(files, 0o1777);
  process.env.TMPDIR = files;
  process.env.PLAYWRIGHT_TRANSFORM_CACHE_DIR ??= path.join(root, 'node_modules/.cache/playwright');
  return folder;
}

export async function openTestBed() {
  const folder = ownFolder();
  const cluster = await ensureCluster(folder, { throwaway: true });
  let template = null;
  return {
    folder,
    adminUrl: cluster.admin,
    /** The demo, made once; every test file and every browser test works on a copy. Gives its address. */
    async demo() {
      template ??= (async () => {
        const url = cluster.url.replace(/\/[^/]*$/, `/${DEMO_TEMPLATE}`);
        const env = { ...process.env, DATABASE_URL: url };
        const { code, said } = await hear(bin('tsx'), ['scripts/migrate.ts', '--demo'], { env });
        if (code !== 0) throw new Halt(`The demo database could not be made:\n${said}`);
        say(said);
        return url;
      })();
      return template;
    },
    /** Builds the application and makes the demo; gives the environment for the browser. */
    async prepareBrowser() {
      await ensureBuild(TEST_BUILD);
      const demo = await this.demo();
      return {
        ...process.env,
        NEXT_DIST_DIR: TEST_BUILD,
        E2E_TEMPLATE_URL: demo,
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
