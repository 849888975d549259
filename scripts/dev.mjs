/** `npm run dev`: the development server on its own build folder, with the demo's database. */
import { ensureCluster } from './lib/cluster.mjs';
import { ensureAllModules, ensurePackages, POSTGRES } from './lib/setUp.mjs';
import { bin, Halt, run, say, show } from './lib/shell.mjs';

const PORT = process.env.PORT ?? '4013';

async function main() {
  ensureAllModules();
  let url = process.env.DATABASE_URL;
  if (!url) {
    ensurePackages([POSTGRES]);
    url = (await ensureCluster('.data')).url;
  }
  const env = { ...process.env, DATABASE_URL: url, NEXT_DIST_DIR: '.next-dev', NEXT_TELEMETRY_DISABLED: '1' };
  run(bin('tsx'), ['scripts/build-schemas.ts']);
  say(run(bin('tsx'), ['scripts/migrate.ts', '--demo'], { env }).trim());
  process.exitCode = await show(bin('next'), ['dev', '-H', '127.0.0.1', '-p', PORT], { env });
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  process.exitCode = 1;
});
