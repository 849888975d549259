/** What has to be on the machine before anything of the project can run. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { bin, Halt, hashOf, isRoot, root, run, say, show, succeeds } from './shell.mjs';

/** Installs Debian packages whose file is missing; says the command when it may not. */
export function ensurePackages(wanted) {
  const missing = wanted.filter(({ present }) => !present()).map(({ name }) => name);
  if (missing.length === 0) return;
  const command = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!existsSync('/usr/bin/apt-get')) {
    throw new Halt(`Missing on this machine: ${missing.join(', ')}. Install them and start again.`);
  }
  const sudo = isRoot ? [] : ['sudo', '-n'];
  if (!isRoot && !succeeds('sudo', ['-n', 'true'])) {
    throw new Halt(
      `Missing on this machine: ${missing.join(', ')}. Run this once and start again:\n  sudo ${command}`,
    );
  }
  say(`Installing ${missing.join(', ')} …`);
  const [first, ...rest] = [...sudo, 'env', 'DEBIAN_FRONTEND=noninteractive'];
  run(first, [...rest, 'apt-get', 'update', '-qq']);
  run(first, [...rest, ...command.split(' ')]);
}

export const POSTGRES = {
  name: 'postgresql',
  present: () => succeeds('sh', ['-c', 'ls /usr/lib/postgresql/*/bin/initdb']),
};
/** A general circuit simulator: the independent judge of the solver. */
export const NGSPICE = { name: 'ngspice', present: () => existsSync('/usr/bin/ngspice') };
/** Chromium without windows: the same engine, and a sixth less work for every page than the one with them. */
export const CHROMIUM = {
  name: 'chromium-headless-shell',
  present: () => existsSync('/usr/bin/chromium-headless-shell'),
};

/** Network namespaces, and what a browser trusts: for the test of a share. */
const NAMESPACES = {
  name: 'iproute2',
  present: () => existsSync('/usr/sbin/ip') || existsSync('/sbin/ip'),
};
const TRUST = { name: 'libnss3-tools', present: () => existsSync('/usr/bin/certutil') };
const CURL = { name: 'curl', present: () => existsSync('/usr/bin/curl') };
const OPENSSL = { name: 'openssl', present: () => existsSync('/usr/bin/openssl') };
const UNZIP = { name: 'unzip', present: () => existsSync('/usr/bin/unzip') };

/**
 * The packages of the lock file, where they are not there already. A first start installs only those that the program
 * runs with, and waits less; for who works on it the others are added, and they stay.
 */
function installModules(forWork) {
  const modules = path.join(root, 'node_modules');
  const stamp = path.join(modules, '.every-trace-lock');
  const now = hashOf(['package-lock.json']);
  const [lock, kept] = existsSync(stamp) ? readFileSync(stamp, 'utf8').split(' ') : [];
  const all = forWork || (kept !== 'to-run' && existsSync(modules));
  if (lock === now && (kept === 'all' || !all)) return;
  say('Installing the packages of package-lock.json …');
  // What runs beside keeps its packages where some are only added.
  const command = lock === now ? 'install' : 'ci';
  run('npm', [command, all ? '--include=dev' : '--omit=dev', '--no-audit', '--no-fund'], {
    env: { ...process.env, NODE_ENV: 'development' },
  });
  writeFileSync(stamp, `${now} ${all ? 'all' : 'to-run'}`);
}

export const ensureModules = () => installModules(false);
export const ensureAllModules = () => installModules(true);

/** Everything that the browser tests need besides database and build, and what else is wanted with it. */
export function ensureBrowserTests(more = []) {
  ensureAllModules();
  ensurePackages([POSTGRES, CHROMIUM, NAMESPACES, TRUST, CURL, OPENSSL, UNZIP, ...more]);
}

/** What is compiled from the schemas and read by everything else. */
const GENERATED = 'core/format/generated/jobEvent.js';

/** Makes the compiled schemas where they are missing: a clone without them, or one that was tidied. */
export function ensureSchemas() {
  if (existsSync(path.join(root, GENERATED))) return;
  say('Compiling the schemas …');
  run(bin('tsx'), ['scripts/build-schemas.ts']);
}

const SOURCES = [
  'src',
  'core',
  'scripts/build-schemas.ts',
  'next.config.ts',
  'postcss.config.mjs',
  'package-lock.json',
  'tsconfig.json',
];

/** A production build in its own folder, made anew only when the sources changed. */
export async function ensureBuild(distDir) {
  const stamp = path.join(root, distDir, 'every-trace-sources');
  const now = hashOf(SOURCES);
  ensureSchemas();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return now;
  say('Building …');
  run(bin('tsx'), ['scripts/build-schemas.ts']);
  const code = await show(bin('next'), ['build'], {
    env: { ...process.env, NEXT_DIST_DIR: distDir, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' },
  });
  if (code !== 0) throw new Halt('The production build failed; see above.');
  writeFileSync(stamp, now);
  return now;
}
