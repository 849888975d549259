/** `npm run doctor`: what is wrong with this installation, in words; nothing is changed by it. */
import { existsSync, readFileSync, statfsSync } from 'node:fs';
import { isIP } from 'node:net';
import path from 'node:path';
import { runningUrl } from './lib/cluster.mjs';
import { remembered } from './lib/processes.mjs';
import { bin, hashOf, root, say, show, succeeds } from './lib/shell.mjs';

const folder = path.resolve(root, process.env.EVERY_TRACE_DATA ?? '.data');
/** Less room than this, and photos and backups soon find none. */
const ROOM_BYTES = 2 * 1024 ** 3;

let wrong = 0;
/** One line of the findings: in order, or what is wrong and what to do. */
function found(fine, words) {
  if (!fine) wrong += 1;
  say(`${fine ? '✓' : '✗'} ${words}`);
}

async function main() {
  const [major = 0] = process.versions.node.split('.').map(Number);
  found(
    major >= 20,
    major >= 20
      ? `Node ${process.versions.node}`
      : `Node ${process.versions.node} is too old: 20 or newer is needed.`,
  );
  const stamp = path.join(root, 'node_modules', '.every-trace-lock');
  const installed = existsSync(stamp) && readFileSync(stamp, 'utf8') === hashOf(['package-lock.json']);
  found(
    installed,
    installed
      ? 'The packages are those of package-lock.json'
      : 'The packages are not those of package-lock.json. npm start installs them.',
  );
  if (!existsSync(folder)) {
    say(`– Nothing was begun here yet: there is no ${folder}. npm start makes it.`);
  } else {
    const { bavail, bsize } = statfsSync(folder);
    const free = bavail * bsize;
    const words = `${(free / 1024 ** 3).toFixed(1)} GB are free where the data lie`;
    found(
      free > ROOM_BYTES,
      free > ROOM_BYTES ? words : `${words}: make room, or photos and backups find none.`,
    );
  }
  believed();
  if (!process.env.DATABASE_URL) {
    const there = succeeds('sh', ['-c', 'ls /usr/lib/postgresql/*/bin/initdb']);
    found(
      there,
      there
        ? 'PostgreSQL is installed'
        : 'PostgreSQL is missing. npm start installs it, or: sudo apt-get install postgresql',
    );
  }
  const server = remembered(path.join(folder, 'server.pid'));
  say(
    server === null ? '– The program does not run at the moment.' : `✓ The program runs (process ${server})`,
  );
  const url = process.env.DATABASE_URL ?? runningUrl(folder);
  if (url === null) {
    say('– The database does not run, so it was not looked into. Start the program and ask again.');
  } else if (installed) {
    const env = {
      ...process.env,
      DATABASE_URL: url,
      EVERY_TRACE_DATA: folder,
      EVERY_TRACE_BACKUPS: process.env.EVERY_TRACE_BACKUPS ?? path.join(folder, 'backups'),
    };
    wrong += await show(bin('tsx'), ['scripts/doctorOfDatabase.ts'], { env });
  }
  if (installed) wrong += await certificates();
  say(
    wrong === 0 ? '\nNothing is wrong.' : `\n${wrong === 1 ? 'One thing is' : `${wrong} things are`} wrong.`,
  );
  process.exitCode = wrong === 0 ? 0 : 1;
}

/** Whether whoever signs in from outside is told apart from the others (`src/access/origin.ts`). */
function believed() {
  const hosts = (process.env.EVERY_TRACE_HOSTS ?? '').trim();
  const proxies = (process.env.EVERY_TRACE_PROXY ?? '').split(',').map((one) => one.trim());
  const isNetwork = (one) => {
    const [address, bits = '0'] = one.split('/');
    const whole = { 4: 32, 6: 128 }[isIP(address)] ?? -1;
    return /^\d+$/.test(bits) && Number(bits) <= whole;
  };
  const wrongly = proxies.filter((one) => one !== '' && !isNetwork(one));
  if (wrongly.length > 0) found(false, `EVERY_TRACE_PROXY names what is no address: ${wrongly.join(', ')}.`);
  if (hosts === '') return;
  const named = proxies.some(isNetwork);
  found(
    named,
    named
      ? 'The proxy before it is believed for the addresses of its clients'
      : 'EVERY_TRACE_HOSTS is set and EVERY_TRACE_PROXY is not: all clients behind your proxy count as one, and wrong passwords of one of them keep new browsers out for a quarter of an hour. Name the addresses of the proxy.',
  );
}

async function certificates() {
  const before = wrong;
  const { certificatesIn } = await import('./share/authority.mjs');
  const made = certificatesIn(path.join(folder, 'share'));
  if (!made) say('– It was never shared: there is no certificate.');
  else {
    const now = Date.now();
    const until = new Date(made.leaf.validTo);
    const good = until.getTime() > now && new Date(made.leaf.validFrom).getTime() < now;
    found(
      good,
      good
        ? `The certificate is good until ${until.toISOString().slice(0, 10)}; npm start -- --share renews it`
        : 'The certificate is not good today. Look at the clock of this machine; then npm start -- --share makes a new one.',
    );
    const ours = made.leaf.verify(made.authority.publicKey);
    found(
      ours,
      ours
        ? 'It is of the authority that phones trust'
        : 'The certificate is not of the authority beside it. Remove front.crt and front.key, and share again.',
    );
    found(
      made.openKeys.length === 0,
      made.openKeys.length === 0
        ? 'The keys are readable by their owner only'
        : `Others on this machine can read ${made.openKeys.join(' and ')}. chmod 600, once it is sure that nobody took them.`,
    );
  }
  const more = wrong - before;
  wrong = before;
  return more;
}

main().catch((error) => {
  process.stderr.write(`${error.stack}\n`);
  process.exitCode = 1;
});
