/** Runs one of the project's commands on the database of the installation, which is started where it does not run. */
import path from 'node:path';
import { ensureCluster } from './lib/cluster.mjs';
import { ensureModules, ensurePackages, ensureSchemas, POSTGRES } from './lib/setUp.mjs';
import { bin, Halt, root, show } from './lib/shell.mjs';

const [script, ...args] = process.argv.slice(2);
const folder = path.resolve(root, process.env.EVERY_TRACE_DATA ?? '.data');

async function main() {
  ensureModules();
  ensureSchemas();
  let url = process.env.DATABASE_URL;
  let stop = () => undefined;
  if (!url) {
    ensurePackages([POSTGRES]);
    const cluster = await ensureCluster(folder);
    url = cluster.url;
    // One that ran already serves somebody.
    if (!cluster.ran) stop = cluster.stop;
  }
  const env = {
    ...process.env,
    DATABASE_URL: url,
    EVERY_TRACE_BACKUPS: process.env.EVERY_TRACE_BACKUPS ?? path.join(folder, 'backups'),
    EVERY_TRACE_DATA: folder,
  };
  try {
    const before = await show(bin('tsx'), ['scripts/migrate.ts'], { env });
    process.exitCode = before === 0 ? await show(bin('tsx'), [script, ...args], { env }) : before;
  } finally {
    stop();
  }
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  process.exitCode = 1;
});
