/** `npm start`: everything the demo needs on a fresh machine, then the application on loopback. */
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ensureCluster } from './lib/cluster.mjs';
import { ensureBuild, ensureModules, ensurePackages, POSTGRES, withLock } from './lib/setUp.mjs';
import { bin, delay, Halt, isAlive, portTaken, root, run, say } from './lib/shell.mjs';

const PORT = Number(process.env.PORT ?? 4012);
const ADDRESS = `http://127.0.0.1:${PORT}`;
const folder = path.join(root, '.data');
const pidFile = path.join(folder, 'server.pid');

async function answers() {
  try {
    const response = await fetch(`${ADDRESS}/api/health`, { signal: AbortSignal.timeout(3000) });
    return response.ok ? await response.json() : null;
  } catch {
    return null;
  }
}

/** Stops a server that an earlier start left behind, but nothing else. */
async function stopLeftOver() {
  if (!existsSync(pidFile)) return;
  const pid = Number(readFileSync(pidFile, 'utf8'));
  if (pid && isAlive(pid)) {
    process.kill(pid, 'SIGTERM');
    for (let tries = 0; tries < 50 && isAlive(pid); tries++) await delay(100);
    if (isAlive(pid)) process.kill(pid, 'SIGKILL');
  }
  rmSync(pidFile, { force: true });
}

async function prepare() {
  if (Number(process.versions.node.split('.')[0]) < 20) {
    throw new Halt(`Node 20 or newer is needed; this is ${process.versions.node}.`);
  }
  ensureModules();
  let cluster = null;
  let url = process.env.DATABASE_URL;
  if (!url) {
    ensurePackages([POSTGRES]);
    cluster = await ensureCluster('.data');
    url = cluster.url;
  }
  const environment = {
    ...process.env,
    DATABASE_URL: url,
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
  };
  say(run(bin('tsx'), ['scripts/migrate.ts', '--demo'], { env: environment }).trim());
  const build = await ensureBuild('.next');
  return { cluster, environment: { ...environment, EVERY_TRACE_BUILD: build }, build };
}

async function main() {
  const { cluster, environment, build } = await withLock(folder, prepare);
  const running = await answers();
  if (running?.name === 'every-trace') {
    if (running.build === build) {
      say(`Every Trace is running already: ${ADDRESS}`);
      return;
    }
    await stopLeftOver();
  }
  if (await portTaken(PORT)) {
    throw new Halt(`Port ${PORT} is taken by another program. Stop it, or start with PORT=4013 npm start.`);
  }
  const server = spawn(
    process.execPath,
    [path.join(root, 'node_modules/next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(PORT)],
    {
      cwd: root,
      env: environment,
      stdio: ['ignore', 'ignore', 'inherit'],
    },
  );
  writeFileSync(pidFile, String(server.pid));
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    server.kill('SIGTERM');
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  server.on('exit', (code) => {
    rmSync(pidFile, { force: true });
    cluster?.stop();
    process.exitCode = stopping ? 0 : (code ?? 1);
  });
  for (let tries = 0; tries < 300 && !(await answers()); tries++) await delay(200);
  if (await answers()) say(`\nEvery Trace: ${ADDRESS}\nStop with Ctrl+C; the data stay in .data/.`);
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  process.exitCode = 1;
});
