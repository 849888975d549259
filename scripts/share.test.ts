/** Names, addresses and certificates of a share, apart from the network that the browser test plays. */

import { X509Certificate } from 'node:crypto';
import { chmodSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import http from 'node:http';
import http2 from 'node:http2';
import https from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { freePort } from './lib/ports.mjs';
import { lanAddresses, machineName, stableName } from './share/addresses.mjs';
import { ensureAuthority, ensureLeaf, isPermittedAddress } from './share/authority.mjs';
import { openFront } from './share/front.mjs';
import { trustPage } from './share/trustPage.mjs';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'every-trace-authority-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

test('a machine is named as a domain name may be, whatever it is called', () => {
  expect(['Bench 2.example.org', 'ÄÖ', '-x-', 'vm'].map((one) => machineName(one))).toEqual([
    'bench-2',
    'workshop',
    'x',
    'vm',
  ]);
  expect(stableName('bench')).toBe('trace-bench.local');
});

test('private addresses are shared, public ones and those of this machine are not', () => {
  const one = (address: string, internal = false) => ({ address, family: 'IPv4', internal }) as never;
  const found = lanAddresses({
    lo: [one('127.0.0.1', true)],
    eth0: [one('203.0.113.7'), one('192.168.1.20')],
    wlan0: [one('10.0.0.5')],
  });
  expect(found).toEqual([
    { name: 'eth0', address: '192.168.1.20' },
    { name: 'wlan0', address: '10.0.0.5' },
  ]);
  expect(lanAddresses({ lo: [one('127.0.0.1', true)] })).toEqual([]);
  expect(['172.16.0.1', '172.32.0.1', '8.8.8.8', 'fd00::1', '2001:db8::1'].map(isPermittedAddress)).toEqual([
    true,
    false,
    false,
    true,
    false,
  ]);
});

test('a leaf is kept while names and addresses are the same, and made anew when one changes or it runs out', async () => {
  const authority = await ensureAuthority(folder, 'bench');
  const names = ['trace-bench.local', 'bench'];
  const first = await ensureLeaf(folder, authority, names, ['10.0.0.5']);
  expect(first.made).toBe(true);
  expect((await ensureLeaf(folder, authority, names, ['10.0.0.5'])).made).toBe(false);
  expect((await ensureLeaf(folder, authority, names, ['10.0.0.6'])).made).toBe(true);
  const later = new Date(Date.now() + 380 * 86_400_000);
  expect((await ensureLeaf(folder, authority, names, ['10.0.0.6'], later)).made).toBe(true);
  // The authority itself stays: phones trust it.
  expect((await ensureAuthority(folder, 'bench')).pem).toBe(authority.pem);
  const { validFrom, validTo } = new X509Certificate(first.cert);
  expect((new Date(validTo).getTime() - new Date(validFrom).getTime()) / 86_400_000).toBeLessThan(825);
});

test('a key that others may read, and a clock before its time, are said in words', async () => {
  await ensureAuthority(folder, 'bench');
  await expect(ensureAuthority(folder, 'bench', new Date('2020-01-01'))).rejects.toThrow(
    /clock of this machine says 2020-01-01/,
  );
  const key = path.join(folder, 'authority.key');
  expect(statSync(key).mode & 0o777).toBe(0o600);
  chmodSync(key, 0o644);
  await expect(ensureAuthority(folder, 'bench')).rejects.toThrow(/can be read by others/);
});

test('what the page of trust says of the machine is text', () => {
  const page = trustPage({ machine: '<b>"x"', named: 'https://a/', secure: 'https://b/', fingerprint: 'AA' });
  expect(page).not.toContain('<b>');
  expect(readFileSync(path.join(__dirname, 'share/trustPage.mjs'), 'utf8')).not.toMatch(/<script/);
});

/** A front before an application of this sort, while `work` asks it at its address. */
async function before(
  application: http.RequestListener,
  work: (address: string, ca: string) => Promise<void>,
): Promise<void> {
  const authority = await ensureAuthority(folder, 'bench');
  const leaf = await ensureLeaf(folder, authority, ['localhost'], []);
  const server = http.createServer(application);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const [port, plainPort] = [await freePort(), await freePort()];
  const now = () => ({ leaf, stable: 'trace-bench.local' }) as never;
  const app = (server.address() as AddressInfo).port;
  const front = await openFront({ app, secret: 'x', port, plainPort, now });
  try {
    await work(`https://localhost:${port}`, authority.pem);
  } finally {
    await front.stop();
    server.close();
    server.closeAllConnections();
  }
}

test('what is sent arrives, also while the application lets go of connections that were idle', async () => {
  const used = new WeakSet();
  // The second request on a connection meets its end, as it may with any server at any time.
  const application: http.RequestListener = (request, response) => {
    if (used.has(request.socket)) request.socket.destroy();
    used.add(request.socket);
    request.resume().on('end', () => response.end('kept'));
  };
  await before(application, async (address, ca) => {
    // One that knows no HTTP/2 is served as well.
    const agent = new https.Agent({ keepAlive: true, ca });
    const send = () =>
      new Promise<number | undefined>((resolve, reject) => {
        https
          .request(address, { method: 'POST', agent }, (answer) =>
            answer.resume().on('end', () => resolve(answer.statusCode)),
          )
          .on('error', reject)
          .end('an entry');
      });
    expect([await send(), await send(), await send()]).toEqual([200, 200, 200]);
    agent.destroy();
  });
});

test('twenty streams of news, and pictures that were not taken, keep no entry on the same connection back', async () => {
  const application: http.RequestListener = (request, response) => {
    if (request.url === '/news') response.write('data: here\n\n');
    else if (request.url === '/picture') request.socket.destroy();
    else request.resume().on('end', () => response.end(request.headers.host));
  };
  await before(application, async (address, ca) => {
    const client = http2.connect(address, { ca });
    const send = (url: string, body = '') =>
      new Promise<http2.ClientHttp2Stream>((resolve, reject) => {
        const stream = client.request({ ':method': body ? 'POST' : 'GET', ':path': url });
        stream.on('response', () => resolve(stream)).on('error', reject);
        if (body) stream.end(body);
      });
    for (let index = 0; index < 20; index++) await send('/news');
    for (let index = 0; index < 4; index++) (await send('/picture', 'p'.repeat(60_000))).resume();
    const entry = await send('/entries', 'an entry');
    let said = '';
    for await (const chunk of entry.setEncoding('utf8')) said += chunk;
    // Who is asked is known to the application, whatever the version calls it.
    expect(said).toBe(new URL(address).host);
    client.destroy();
  });
});
