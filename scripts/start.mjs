/**
 * `npm start`: everything the demo needs on a fresh machine, then the application on loopback; with `--share` for phones in
 * the local network too.
 */
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, rmSync } from 'node:fs';
import path from 'node:path';
import { asked } from './lib/asked.mjs';
import { ensureCluster } from './lib/cluster.mjs';
import { needPort } from './lib/ports.mjs';
import { remember, remembered, withLock } from './lib/processes.mjs';
import { ensureBuild, ensureModules, ensurePackages, ensureSchemas, POSTGRES } from './lib/setUp.mjs';
import { bin, delay, Halt, root, run, say } from './lib/shell.mjs';

const PORT = Number(process.env.PORT ?? 4012);
const SHARED = process.argv.includes('--share');
const SHARE_PORT = Number(process.env.SHARE_PORT ?? 4443);
const SHARE_PLAIN_PORT = Number(process.env.SHARE_PLAIN_PORT ?? 4080);
/** One that ended sooner would only end again. */
const LIVED_MS = 3000;
/** So long what is being answered may take until the program ends. */
const STOP_MS = 3000;
const ADDRESS = `http://127.0.0.1:${PORT}`;
/** Where the data are; a relative path counts from the program. */
const folder = path.resolve(root, process.env.EVERY_TRACE_DATA ?? '.data');
const pidFile = path.join(folder, 'server.pid');

/** What answers at the address, well or not; null where nothing does. */
async function answers() {
  const answer = await asked(`${ADDRESS}/api/health`, 3000);
  return answer && { ...answer.body, ok: answer.ok };
}

/** Stops the server that an earlier start left behind, and nothing that merely has its number by now. */
async function stopLeftOver() {
  const pid = remembered(pidFile);
  if (pid !== null) {
    process.kill(pid, 'SIGTERM');
    for (let tries = 0; tries < 50 && remembered(pidFile) !== null; tries++) await delay(100);
    const stays = remembered(pidFile) !== null;
    // Gone first: whoever began it sees that it was ended, and does not begin it again.
    rmSync(pidFile, { force: true });
    if (stays) process.kill(pid, 'SIGKILL');
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
    cluster = await ensureCluster(folder);
    url = cluster.url;
  }
  const environment = {
    ...process.env,
    DATABASE_URL: url,
    EVERY_TRACE_BACKUPS: process.env.EVERY_TRACE_BACKUPS ?? path.join(folder, 'backups'),
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
  };
  ensureSchemas();
  say(run(bin('tsx'), ['scripts/migrate.ts', '--demo'], { env: environment }).trim());
  const build = await ensureBuild(process.env.NEXT_DIST_DIR ?? '.next');
  return { cluster, environment: { ...environment, EVERY_TRACE_BUILD: build }, build };
}

/** Ports that cannot be had are said at once, before anything is installed, made or built. */
async function needPorts() {
  // A start that runs, is just coming up, or was left running, holds its own.
  if (remembered(pidFile) !== null || (await answers())?.name === 'every-trace') return;
  await needPort(PORT, '127.0.0.1', 'PORT');
  if (!SHARED) return;
  await needPort(SHARE_PORT, '0.0.0.0', 'SHARE_PORT');
  await needPort(SHARE_PLAIN_PORT, '0.0.0.0', 'SHARE_PLAIN_PORT');
}

async function main() {
  await needPorts();
  const { cluster, environment: prepared, build } = await withLock(folder, prepare);
  const secret = randomBytes(32).toString('base64url');
  const environment = SHARED ? { ...prepared, ...(await sharedEnvironment(secret)) } : prepared;
  const running = await answers();
  if (running?.name === 'every-trace') {
    if (running.build === build && running.shared === SHARED) {
      say(`Every Trace is running already: ${ADDRESS}`);
      return;
    }
    await stopLeftOver();
  }
  await needPort(PORT, '127.0.0.1', 'PORT');
  let server = null;
  let database = cluster;
  let stopping = false;
  let watch = null;
  let front = null;
  const serve = (env) => {
    const child = spawn(
      process.execPath,
      [path.join(root, 'node_modules/next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(PORT)],
      { cwd: root, env, stdio: ['ignore', 'ignore', 'inherit'] },
    );
    remember(pidFile, child.pid);
    const since = Date.now();
    child.on('exit', (code, signal) => {
      if (child !== server) return;
      // Whoever asked it to end (SIGTERM, or another start with a newer program) means it.
      const isAsked = code === 0 || code === 143 || signal === 'SIGTERM' || !existsSync(pidFile);
      if (!stopping && !isAsked && Date.now() - since > LIVED_MS) {
        // It worked and broke: database, program and ports are as they were.
        say('The application has stopped; it is started again …');
        server = serve(env);
        return;
      }
      clearInterval(watch);
      rmSync(pidFile, { force: true });
      database?.stop();
      process.exitCode ||= stopping ? 0 : (code ?? 1);
    });
    return child;
  };
  server = serve(environment);
  const stop = () => {
    if (stopping) return;
    stopping = true;
    void front?.stop();
    server.kill('SIGTERM');
    // Pages that listen for news would keep it for as long as they are open.
    setTimeout(() => server.kill('SIGKILL'), STOP_MS).unref();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  let mending = false;
  watch = setInterval(async () => {
    if (!database || mending || stopping || database.runs()) return;
    mending = true;
    try {
      say('The database has stopped; it is started again …');
      const before = database.url;
      database = await ensureCluster(folder);
      if (database.url !== before) {
        // It had to take another port: the application has to know.
        const old = server;
        server = null;
        old.kill('SIGTERM');
        await new Promise((resolve) => old.on('exit', resolve));
        server = serve({ ...environment, DATABASE_URL: database.url });
      }
      say('The database is back.');
    } catch (error) {
      say(error instanceof Halt ? error.message : String(error));
    } finally {
      mending = false;
    }
  }, 2000);
  for (let tries = 0; tries < 300 && !(await answers())?.ok; tries++) await delay(200);
  const health = await answers();
  if (health?.ok) say(`\nEvery Trace: ${ADDRESS}\nStop with Ctrl+C; the data stay in ${folder}.`);
  else if (health) say(`\nEvery Trace is up at ${ADDRESS}, but ${health.message ?? 'it cannot work yet.'}`);
  if (!SHARED || stopping) return;
  try {
    const { share } = await import('./share/share.mjs');
    front = await share({ folder, app: PORT, secret, port: SHARE_PORT, plainPort: SHARE_PLAIN_PORT });
    // Whoever stopped it meanwhile stopped all of it.
    if (stopping) await front.stop();
  } catch (error) {
    stop();
    throw error;
  }
}

/** What makes the application ask everybody to sign in, and know its own front. */
async function sharedEnvironment(secret) {
  const { hostsFile } = await import('./share/share.mjs');
  return {
    EVERY_TRACE_SHARED: '1',
    EVERY_TRACE_FRONT: secret,
    EVERY_TRACE_HOSTS_FILE: hostsFile(folder),
    EVERY_TRACE_TRUST_PORT: String(SHARE_PLAIN_PORT),
  };
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  process.exitCode = 1;
});
