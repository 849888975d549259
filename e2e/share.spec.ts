/**
 * The application shared with a network: its front on one side, a phone in a network namespace of its own on the other. The
 * phone trusts the authority or does not, signs in, works, loses the link, and finds the workshop again.
 */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { CHROMIUM_OPTIONS } from '../scripts/lib/browser.mjs';
import { freePort } from '../scripts/lib/ports.mjs';
import { machineName, stableName } from '../scripts/share/addresses.mjs';
import { type App, openApp } from './app';
import { atRest } from './rest';
import { type Browser, expect, type Page, test } from './test';

const ROOT = path.resolve(import.meta.dirname ?? '.', '..');
const PASSWORD = 'seven brass lanterns';
const NAME = stableName(machineName());

function run(command: string, ...args: string[]): string {
  return execFileSync(command, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
}

/** Namespaces are made by root; whoever is not root asks as the set-up of the tests does, by sudo. */
const AS_ROOT = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
/** Inside a namespace again as whoever runs the tests. */
const AS_SELF =
  AS_ROOT.length === 0
    ? []
    : ['setpriv', `--reuid=${process.getuid?.()}`, `--regid=${process.getgid?.()}`, '--clear-groups'];

function runAsRoot(...command: string[]): string {
  const [first, ...rest] = [...AS_ROOT, ...command];
  return run(first!, ...rest);
}

/** Two ends of a wire: one on this machine, one in a namespace that holds the phone. */
class Wire {
  readonly space = `et-phone-${process.pid}`;
  private readonly near = `et${process.pid % 100_000}a`;
  private readonly far = `et${process.pid % 100_000}b`;
  private readonly net = `10.77.${process.pid % 250}`;
  address = `${this.net}.1`;

  constructor() {
    runAsRoot('ip', 'netns', 'add', this.space);
    runAsRoot('ip', 'link', 'add', this.near, 'type', 'veth', 'peer', 'name', this.far);
    runAsRoot('ip', 'link', 'set', this.far, 'netns', this.space);
    runAsRoot('ip', 'addr', 'add', `${this.address}/24`, 'dev', this.near);
    runAsRoot('ip', 'link', 'set', this.near, 'up');
    this.inside('ip', 'addr', 'add', `${this.net}.2/24`, 'dev', this.far);
    this.inside('ip', 'link', 'set', this.far, 'up');
    this.inside('ip', 'link', 'set', 'lo', 'up');
    this.name();
  }

  inside(...command: string[]): string {
    return runAsRoot('ip', 'netns', 'exec', this.space, ...command);
  }

  /** What the name of the workshop stands for on the phone, as the local network would tell it. */
  private name(): void {
    const folder = `/etc/netns/${this.space}`;
    const script = `mkdir -p ${folder} && printf '127.0.0.1 localhost\\n${this.address} ${NAME}\\n' > ${folder}/hosts`;
    runAsRoot('sh', '-c', script);
  }

  /** Whom the phone finds by the name, asked over multicast as phones ask. */
  found(): string {
    const script = `
      const mdns = require('multicast-dns')({ interface: '${this.net}.2', bind: '0.0.0.0' });
      setTimeout(() => process.exit(0), 4000);
      mdns.on('response', ({ answers }) => {
        for (const one of answers) if (one.name === '${NAME}') { console.log(one.data); process.exit(0); }
      });
      mdns.query('${NAME}', 'A');`;
    return this.inside(process.execPath, '-e', script).trim();
  }

  cut(): void {
    this.inside('ip', 'link', 'set', this.far, 'down');
  }

  join(): void {
    this.inside('ip', 'link', 'set', this.far, 'up');
  }

  /** The machine gets another address. */
  move(last: number): void {
    const before = this.address;
    this.address = `${this.net}.${last}`;
    runAsRoot('ip', 'addr', 'del', `${before}/24`, 'dev', this.near);
    runAsRoot('ip', 'addr', 'add', `${this.address}/24`, 'dev', this.near);
    this.name();
  }

  remove(): void {
    for (const command of [
      ['link', 'del', this.near],
      ['netns', 'del', this.space],
    ]) {
      try {
        runAsRoot('ip', ...command);
      } catch {
        // Gone already.
      }
    }
    runAsRoot('rm', '-rf', `/etc/netns/${this.space}`);
  }
}

/** Debian's Chromium inside the namespace, with a home of its own and what it trusts there. */
async function phoneBrowser(wire: Wire, home: string, authority: string | null): Promise<Browser> {
  const store = path.join(home, '.pki/nssdb');
  rmSync(home, { recursive: true, force: true });
  mkdirSync(store, { recursive: true });
  run('certutil', '-N', '-d', `sql:${store}`, '--empty-password');
  if (authority) run('certutil', '-A', '-d', `sql:${store}`, '-n', 'workshop', '-t', 'C,,', '-i', authority);
  const start = path.join(home, 'browser.sh');
  const into = [...AS_ROOT, 'ip', 'netns', 'exec', wire.space, ...AS_SELF, 'env', `HOME=${home}`].join(' ');
  // Its pipes are 3 and 4, which sudo closes: they go past it as input and output.
  const inside = `sh -c 'exec /usr/bin/chromium-headless-shell "$@" 3<&0 4>&1 1>&2' browser`;
  writeFileSync(start, `#!/bin/sh\nexec ${into} ${inside} "$@" <&3 >&4\n`, { mode: 0o755 });
  chmodSync(start, 0o755);
  return chromium.launch({
    executablePath: start,
    args: CHROMIUM_OPTIONS.args,
  });
}

let app: App;
let wire: Wire;
let home: string;
let shared: ChildProcess;
let said = '';
let ports: { app: number; secure: number; plain: number };

test.describe.configure({ mode: 'serial' });

test.beforeAll(async () => {
  app = await openApp();
  wire = new Wire();
  home = mkdtempSync(path.join(os.tmpdir(), 'every-trace-share-'));
  const free = new Set<number>();
  while (free.size < 3) free.add(await freePort());
  const [forApp, secure, plain] = [...free] as [number, number, number];
  ports = { app: forApp, secure, plain };
  shared = spawn(process.execPath, ['scripts/start.mjs', '--share'], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      DATABASE_URL: app.databaseUrl,
      EVERY_TRACE_DATA: home,
      PORT: String(ports.app),
      SHARE_PORT: String(ports.secure),
      SHARE_PLAIN_PORT: String(ports.plain),
    },
  });
  for (const stream of [shared.stdout, shared.stderr]) {
    stream?.setEncoding('utf8').on('data', (text: string) => {
      said += text;
    });
  }
  await expect.poll(() => said, { timeout: 60_000 }).toContain('Fingerprint of the authority');
});

test.afterAll(async ({ browser }) => {
  if (shared.exitCode === null) {
    const ended = new Promise((resolve) => shared.on('exit', resolve));
    shared.kill('SIGINT');
    await ended;
  }
  wire.remove();
  rmSync(home, { recursive: true, force: true });
  await app.close(browser);
});

const authority = () => path.join(home, 'share/authority.crt');
const byName = () => `https://${NAME}:${ports.secure}`;
const byNumber = () => `https://${wire.address}:${ports.secure}`;

/** As somebody does it in whose hand the network changes just then: told that it did not come through, once more. */
async function signIn(page: Page, at: string): Promise<void> {
  await expect(async () => {
    await page.goto(`${at}/sign-in`, { timeout: 10_000 });
    await page.getByLabel('E-mail or name').fill('mara');
    await page.getByLabel('Password').fill(PASSWORD);
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    await page.waitForURL(`${at}/`, { timeout: 10_000 });
  }).toPass({ timeout: 60_000 });
}

/** One more entry on the job that is open: handed to a colleague in the middle. */
async function handTo(page: Page, name: string): Promise<void> {
  const field = page.getByLabel('Who takes it over');
  if (!(await field.isVisible())) await page.getByText('Hand it to a colleague in the middle').click();
  await field.fill(name);
  await page.getByRole('button', { name: 'Hand it over' }).click();
}

const handed = async () =>
  (
    await app.query<{ to: string }>(
      `select body ->> 'to' as to from job_events join shops on shops.id = shop_id where kind = 'handed-over' and not demo order by seq`,
    )
  ).map(({ to }) => to);

test('what is opened is said before, nobody gets past signing in, and a shop is begun on the machine alone', async ({
  page,
}) => {
  expect(said).toContain(`${wire.address}, port ${ports.secure} (TLS) and ${ports.plain}`);
  expect(said).toContain(byName());
  // At the machine itself, without a front: no demo, the way to begin.
  await page.goto(`http://127.0.0.1:${ports.app}/`);
  await expect(page).toHaveURL(/\/sign-in$/);
  const demo = await app.query<{ id: string }>(`select id from people where name = 'Imre Pellow'`);
  const tried = await page.request.post(`http://127.0.0.1:${ports.app}/api/access/demo`, {
    data: { person: demo[0]?.id },
  });
  expect(tried.status()).toBe(403);
  // From the network nobody begins one.
  const asked = wire.inside(
    'curl',
    '-sS',
    '--cacert',
    authority(),
    '-H',
    'Content-Type: application/json',
    '-d',
    JSON.stringify({ shop: 'Mine', town: '', owner: 'Eve', name: 'eve', password: PASSWORD }),
    `${byNumber()}/api/access/begin`,
  );
  expect(asked).toContain('begun on the machine itself');
  await page.goto(`http://127.0.0.1:${ports.app}/begin`);
  await page.getByLabel('Name of the shop').fill('Fenwold Electrics');
  await page.getByLabel('Your name').fill('Mara Quill');
  await page.getByLabel('To sign in').fill('mara');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Begin the shop' }).click();
  await page.waitForURL(`http://127.0.0.1:${ports.app}/`);
  await page.goto(`http://127.0.0.1:${ports.app}/shop`);
  await expect(page.getByTestId('share').getByRole('img')).toBeVisible();
  await expect(page.getByTestId('share').getByRole('textbox')).toHaveValue(`${byName()}/`);
});

test('a phone asks the network for the name that stays the same, and gets the address in that network', () => {
  expect(wire.found()).toBe(wire.address);
});

test('a key that only its owner reads, an authority for this network alone, a certificate of less than 825 days', () => {
  for (const file of ['share/authority.key', 'share/front.key']) {
    expect(run('stat', '-c', '%a', path.join(home, file)).trim()).toBe('600');
  }
  const text = run('openssl', 'x509', '-in', authority(), '-noout', '-text');
  expect(text).toMatch(/Name Constraints: critical/);
  expect(text).toMatch(/CA:TRUE, pathlen:0/);
  const leaf = path.join(home, 'share/front.crt');
  expect(run('openssl', 'verify', '-CAfile', authority(), leaf)).toContain('OK');
  const lasts = (days: number) => {
    try {
      run('openssl', 'x509', '-in', leaf, '-noout', '-checkend', String(days * 86_400));
      return true;
    } catch {
      return false;
    }
  };
  expect([lasts(300), lasts(824)]).toEqual([true, false]);
});

test('over plain HTTP there is the page that says how to trust, and nothing else', async () => {
  const plain = `http://${wire.address}:${ports.plain}`;
  const head = (...args: string[]) => wire.inside('curl', '-sS', '-i', ...args);
  const trust = head(`${plain}/`);
  expect(trust).toContain('CA certificate');
  expect(trust).toContain('What does not');
  expect(trust).not.toMatch(/strict-transport-security/i);
  expect(wire.inside('curl', '-sS', `${plain}/authority.crt`)).toBe(readFileSync(authority(), 'utf8'));
  expect(head(`${plain}/jobs/new?x=1`)).toMatch(
    new RegExp(`308[\\s\\S]*Location: ${byNumber()}/jobs/new\\?x=1`, 'i'),
  );
  expect(head('-X', 'POST', `${plain}/api/events`)).toContain('405');
  expect(head('-H', 'Host: evil.example', `${plain}/`)).toContain('403');
});

test('the front passes on what it knows itself: a foreign host, a claimed address and a claimed front get nowhere', () => {
  const ask = (...args: string[]) => wire.inside('curl', '-sS', '-i', '--cacert', authority(), ...args);
  expect(ask('-H', 'Host: evil.example', `${byNumber()}/sign-in`)).toContain('403');
  // The port of the application itself is not open to the network.
  expect(() => wire.inside('curl', '-sS', '-m', '3', `http://${wire.address}:${ports.app}/`)).toThrow();
  // Strictness for the name that stays the same, and not for a number, nor for the machine’s own name.
  expect(ask(`${byName()}/sign-in`)).toMatch(/strict-transport-security: max-age/i);
  expect(ask(`${byNumber()}/sign-in`)).not.toMatch(/strict-transport-security/i);
  // Whoever claims another address with each try is counted by the one that is true.
  const tries: string[] = [];
  for (let round = 0; round < 62; round++) {
    const answer = ask(
      '-H',
      `X-Forwarded-For: 10.9.8.${round}`,
      '-H',
      'X-Every-Trace-Front: guessed',
      '-H',
      'Content-Type: application/json',
      '-d',
      JSON.stringify({ name: `nobody${round}`, password: 'wrong' }),
      `${byNumber()}/api/access/sign-in`,
    );
    tries.push(/HTTP\/[\d.]+ (\d+)/.exec(answer)?.[1] ?? '');
  }
  expect(tries.filter((one) => one === '401').length).toBeLessThanOrEqual(60);
  expect(tries.at(-1)).toBe('429');
});

test('a phone that trusts it works, loses the link, and brings what waited to the new address by the same name', async () => {
  test.setTimeout(240_000);
  await app.query('delete from tries');
  const job = await app.query<{ id: string }>(
    `insert into vehicles (id, shop_id, name, make, model, plate) select gen_random_uuid(), id, 'Mill cart', '', '', 'MILL 1' from shops where not demo returning id`,
  );
  const strange = await phoneBrowser(wire, path.join(home, 'strange'), null);
  const unsure = await strange.newPage();
  await expect(unsure.goto(`${byName()}/`)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
  await strange.close();
  const browser = await phoneBrowser(wire, path.join(home, 'phone'), authority());
  try {
    const context = await browser.newContext({
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      isMobile: true,
      locale: 'en-GB',
      acceptDownloads: true,
    });
    const page = await context.newPage();
    await signIn(page, byName());
    expect(await page.evaluate(() => isSecureContext)).toBe(true);
    const cookies = await context.cookies();
    const session = cookies.find(({ name }) => name.includes('session_token'))!;
    expect(session).toMatchObject({
      name: '__Secure-every-trace.session_token',
      secure: true,
      httpOnly: true,
      sameSite: 'Lax',
    });
    await page.goto(`${byName()}/jobs/new?vehicle=${job[0]?.id}`);
    await page.getByLabel('What fails, in a few words').fill('Grain auger dead');
    await page.getByRole('radio', { name: /^Fuse, switch, load/ }).tap();
    const volts = page.getByRole('radio', { name: '12 V', exact: true });
    if (await volts.count()) await volts.tap();
    await page.getByRole('button', { name: 'To the first test' }).tap();
    await page.getByTestId('card-title').waitFor();
    const [, id] = /jobs\/([0-9a-f-]{36})/.exec(page.url())!;
    await page.goto(`${byName()}/jobs/${id}/sheet`);
    await handTo(page, 'First');
    await expect.poll(handed).toEqual(['First']);
    // The views of a job are all here by now; the link goes, and the workshop moves.
    wire.cut();
    await handTo(page, 'Second');
    await expect(page.getByTestId('sending')).toContainText('kept here');
    wire.move(9);
    wire.join();
    await expect.poll(() => said).toContain(wire.address);
    expect(wire.found()).toBe(wire.address);
    await expect.poll(handed, { timeout: 60_000 }).toEqual(['First', 'Second']);
    await expect(page.getByTestId('sending')).toHaveText('All recorded', { timeout: 20_000 });

    // By its number the address is another place to a browser: what waits goes along as a file.
    const numbered = await context.newPage();
    await signIn(numbered, byNumber());
    await numbered.goto(`${byNumber()}/jobs/${id}/sheet`);
    await numbered.getByText('Hand it to a colleague in the middle').waitFor();
    // What is fetched once a page has come to rest is here too.
    await atRest(numbered);
    wire.cut();
    await handTo(numbered, 'Third');
    await expect(numbered.getByTestId('sending')).toContainText('kept here');
    wire.move(17);
    wire.join();
    await expect.poll(() => said).toContain(wire.address);
    await numbered.getByTestId('sending').getByRole('button').tap();
    const saving = numbered.waitForEvent('download');
    await numbered.getByRole('button', { name: 'Save them as a file' }).tap();
    const file = path.join(home, 'waiting.json');
    await (await saving).saveAs(file);
    expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({
      format: 'every-trace/waiting',
      version: 1,
    });
    const there = await context.newPage();
    await signIn(there, byNumber());
    await there.goto(`${byNumber()}/shop`);
    await there.getByTestId('waiting-here').locator('input[type=file]').setInputFiles(file);
    await expect(there.getByText('One thing is here now')).toBeVisible();
    await expect.poll(handed, { timeout: 20_000 }).toEqual(['First', 'Second', 'Third']);
    // Read in twice it is there once.
    await there.getByTestId('waiting-here').locator('input[type=file]').setInputFiles(file);
    await expect(there.getByText('Nothing: the server has everything')).toBeVisible();
    expect(await handed()).toEqual(['First', 'Second', 'Third']);
  } finally {
    await browser.close();
  }
});

test('a second start that cannot have its port says so; stopping stops all of it', async () => {
  const second = spawn(process.execPath, ['scripts/start.mjs', '--share'], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      DATABASE_URL: app.databaseUrl,
      // It would have to build first, which takes minutes on a busy machine.
      NEXT_DIST_DIR: path.join(path.relative(ROOT, home), 'build'),
      EVERY_TRACE_DATA: path.join(home, 'second'),
      PORT: String(await freePort()),
      SHARE_PORT: String(ports.secure),
      SHARE_PLAIN_PORT: String(await freePort()),
    },
  });
  let words = '';
  for (const stream of [second.stdout, second.stderr]) {
    stream?.setEncoding('utf8').on('data', (text: string) => {
      words += text;
    });
  }
  const code = await new Promise((resolve) => second.on('exit', resolve));
  expect(code).not.toBe(0);
  expect(words).toContain(`Port ${ports.secure} is taken by another program`);
  // Said before anything was made or built.
  expect([words.includes('Building'), existsSync(path.join(home, 'second'))]).toEqual([false, false]);
  const ended = new Promise((resolve) => shared.on('exit', resolve));
  shared.kill('SIGINT');
  await ended;
  for (const port of [ports.app, ports.secure, ports.plain]) {
    await expect
      .poll(
        () =>
          new Promise((resolve) => {
            const socket = net.connect({ port, host: '127.0.0.1' });
            socket.on('connect', () => {
              socket.destroy();
              resolve('open');
            });
            socket.on('error', () => resolve('closed'));
          }),
      )
      .toBe('closed');
  }
  expect(existsSync(path.join(home, 'share/hosts'))).toBe(false);
});
