/** Pages of other people in the same browser, and requests that nobody's page would make: nothing is read or written. */
import { readdirSync, readFileSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { CHROMIUM_OPTIONS } from '../scripts/lib/browser.mjs';
import { heapOfSlots } from '../testing/panels';
import { type App, openApp } from './app';
import { expect, test } from './test';

let app: App;
let theirs: Server;
let theirUrl: string;
/** What the page of the other site is. */
let theirPage = '';
/** How the last one who asked their `/echo` named itself. */
let named: { origin?: string | undefined; site?: string | string[] | undefined } = {};
const echoed = () => named;

test.beforeAll(async () => {
  app = await openApp();
  theirs = createServer((asked, response) => {
    if (asked.url === '/echo')
      named = { origin: asked.headers.origin, site: asked.headers['sec-fetch-site'] };
    response.writeHead(200, { 'Content-Type': 'text/html' }).end(theirPage);
  });
  await new Promise<void>((resolve) => theirs.listen(0, '127.0.0.1', resolve));
  const address = theirs.address();
  theirUrl = `http://127.0.0.1:${typeof address === 'object' ? address?.port : 0}`;
});
test.afterAll(async ({ browser }) => {
  theirs.close();
  await app.close(browser);
});

const ID = '00000000-0000-4000-8000-000000000000';

/** Every address of the application, from the folders of its routes. */
function everyAddress(): {
  readonly route: string;
  readonly api: boolean;
  readonly takesPosts: boolean;
}[] {
  const found: { route: string; api: boolean; takesPosts: boolean }[] = [];
  const walk = (folder: string, route: string) => {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      if (entry.isDirectory()) {
        walk(path.join(folder, entry.name), `${route}/${entry.name.startsWith('[') ? ID : entry.name}`);
      } else if (entry.name === 'route.ts') {
        const takesPosts = /export const POST\b/.test(readFileSync(path.join(folder, entry.name), 'utf8'));
        found.push({ route, api: true, takesPosts });
      } else if (entry.name === 'page.tsx')
        found.push({ route: route || '/', api: false, takesPosts: false });
    }
  };
  walk(path.resolve(import.meta.dirname, '../src/app'), '');
  return found;
}

const counts = () =>
  app.query<{ of: string }>(
    `select (select count(*) from job_events) || ' ' || (select count(*) from jobs) || ' ' ||
     (select count(*) from vehicles) || ' ' || (select count(*) from circuit_versions) as of`,
  );

/** The status of a request with the headers that a browser gave another one. */
function statusOf(method: string, address: string, headers: Record<string, string>): Promise<number> {
  return new Promise((resolve, reject) => {
    const asked = request(address, { method, headers }, (answer) => {
      answer.resume();
      resolve(answer.statusCode ?? 0);
    });
    asked.on('error', reject);
    asked.end(method === 'POST' ? '{"events":[]}' : undefined);
  });
}

test('a sandboxed frame of another site reads and writes nothing, at any address', async ({ page }) => {
  const before = await counts();
  const addresses = everyAddress().flatMap(({ route, api, takesPosts }) =>
    (api ? ['GET', 'POST'] : ['GET']).map((method) => ({
      method,
      address: `${app.url}${route}`,
      // What takes no posts says so to anybody, and reads none.
      refusal: method === 'POST' && !takesPosts ? 405 : 403,
    })),
  );
  expect(addresses.length).toBeGreaterThan(40);
  const inside = `<script>
    const ask = ({ method, address }, mode) =>
      fetch(address, { method, mode, ...(method === 'POST' ? { body: '{"events":[]}' } : {}) })
        .then(async (answer) => (answer.type === 'opaque' ? 'nothing' : (await answer.text()).slice(0, 40)))
        .catch(() => 'nothing');
    const all = ${JSON.stringify(addresses)};
    (async () => {
      await ask({ method: 'POST', address: '${theirUrl}/echo' }, 'no-cors');
      const got = await Promise.all(all.flatMap((one) => [ask(one, 'cors'), ask(one, 'no-cors')]));
      parent.postMessage(got.filter((one) => one !== 'nothing').length + ' read', '*');
    })();
  </script>`;
  theirPage = `<iframe sandbox="allow-scripts allow-forms" srcdoc='${inside.replaceAll("'", '&#39;')}'></iframe>
    <script>addEventListener('message', ({ data }) => { document.title = data; });</script>`;
  await page.goto(theirUrl);
  await expect(page).toHaveTitle('0 read', { timeout: 30_000 });
  expect(await counts()).toEqual(before);
  // As that frame named itself to the other server, so it does to ours; there nothing but a refusal comes back.
  const named = echoed();
  expect(named.origin).toBe('null');
  for (const { method, address, refusal } of addresses) {
    const headers = {
      origin: 'null',
      ...(named.site ? { 'sec-fetch-site': 'cross-site' } : {}),
      'content-type': 'text/plain',
    };
    expect([method, address, await statusOf(method, address, headers)]).toEqual([method, address, refusal]);
    // A read that carries no origin, as of an image or a script.
    if (method === 'GET') {
      const image = {
        'sec-fetch-site': 'cross-site',
        'sec-fetch-mode': 'no-cors',
        'sec-fetch-dest': 'image',
      };
      expect([address, await statusOf(method, address, image)]).toEqual([address, 403]);
    }
  }
});

test('a method that nobody’s page uses is no error of the server: 405 at pages and routes', async () => {
  for (const [method, place] of [
    ['TRACE', '/'],
    ['TRACE', '/api/health'],
    ['PROPFIND', '/'],
    ['PROPFIND', '/api/events'],
    ['PURGE', '/jobs'],
    ['DELETE', '/'],
    ['PUT', '/vehicles'],
    ['DELETE', '/api/health'],
  ] as const) {
    const answer = await statusOf(method, app.url + place, {});
    expect([method, place, answer]).toEqual([method, place, 405]);
  }
});

test('a form without referrer, of another site, is refused in words', async ({ page }) => {
  const before = await counts();
  const [van] = await app.query<{ id: string }>("select id from vehicles where name = 'Bakery van'");
  for (const [to, name, value] of [
    [`${app.url}/api/jobs`, `{"id":"${ID}","title":"x","vehicleId":"${van?.id}","padding":"`, '"}'],
    [`${app.url}/api/vehicles/${van?.id}/panels/copy`, 'from', van?.id ?? ''],
  ] as const) {
    theirPage = `<meta name="referrer" content="no-referrer">
      <form method="post" enctype="text/plain" action="${to}"><input name='${name}' value='${value}'></form>
      <script>document.forms[0].submit()</script>`;
    const answered = page.waitForResponse((response) => response.url() === to);
    await page.goto(theirUrl).catch(() => undefined);
    expect((await answered).status()).toBe(403);
    await expect(page.locator('body')).toContainText('answers its own pages only');
  }
  expect(await counts()).toEqual(before);
});

test('a name that was made to point at this machine reads nothing, and no page of ours stands in a frame of theirs', async () => {
  const browser = await chromium.launch({
    ...CHROMIUM_OPTIONS,
    args: [...CHROMIUM_OPTIONS.args, '--host-resolver-rules=MAP rebound.test 127.0.0.1'],
  });
  try {
    const page = await browser.newPage();
    const rebound = app.url.replace('127.0.0.1', 'rebound.test');
    for (const { route } of everyAddress()) {
      const answer = await page.goto(`${rebound}${route}`);
      expect([route, answer?.status()]).toEqual([route, 403]);
    }
    const written = await page.evaluate(
      async (to) =>
        (await fetch(to, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: '{}' }))
          .status,
      `${rebound}/api/events`,
    );
    expect(written).toBe(403);
    theirPage = `<iframe src="${app.url}/"></iframe>`;
    await page.goto(theirUrl);
    // The browser refuses it, and puts a page of its own there.
    await expect.poll(() => page.frames()[1]?.url()).toContain('chrome-error:');
    const framed = page.frames()[1]!;
    expect(await framed.locator('body').textContent()).not.toContain('Open jobs');
  } finally {
    await browser.close();
  }
});

test('a link from elsewhere opens a page; every answer carries the headers that keep it apart', async ({
  page,
  request,
}) => {
  theirPage = `<a href="${app.url}/">To the workshop</a>`;
  await page.goto(theirUrl);
  await page.getByRole('link').click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  const script = await page.locator('script[src]').first().getAttribute('src');
  for (const address of ['/', '/no-such-page', '/api/health', '/api/no-such', '/icon.svg', script ?? '/']) {
    const headers = (await request.get(`${app.url}${address}`)).headers();
    expect([address, headers['x-content-type-options']]).toEqual([address, 'nosniff']);
    expect([address, headers['cross-origin-opener-policy']]).toEqual([address, 'same-origin']);
    expect([address, headers['cross-origin-resource-policy']]).toEqual([address, 'same-origin']);
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  }
});

test.describe('what nobody’s page would send', () => {
  const post = (to: string, body: string | Buffer, type = 'application/json') =>
    fetch(`${app.url}${to}`, { method: 'POST', headers: { 'Content-Type': type }, body: body as BodyInit });
  const eventOf = (more: object) => ({
    id: crypto.randomUUID(),
    jobId: ID,
    madeAt: '2026-03-01T10:00:00Z',
    clientOrder: 1,
    body: { kind: 'note', words: 'x' },
    ...more,
  });

  test('is answered with 400 or 404 and a sentence, never 500', async () => {
    const [job] = await app.query<{ id: string }>('select id from jobs limit 1');
    const quote = encodeURIComponent('x\'"; drop table jobs; --');
    for (const to of [
      `/api/events?job=${job?.id}&after=1e20`,
      `/api/events?job=${job?.id}&after=-1`,
      `/api/events?job=${job?.id}&after=99999999999`,
      `/api/events?job=${quote}`,
      `/api/photos/${quote}`,
      `/api/jobs/${quote}/file`,
      `/api/vehicles/${quote}/panels`,
      `/api/vehicles/${quote}/panels/${quote}`,
      `/api/vehicles/${ID}/circuits/${quote}`,
      `/jobs/${quote}`,
      `/jobs/${quote}/trace`,
      `/vehicles/${quote}`,
      `/vehicles/${quote}/panels?box=${quote}&box=2`,
      `/vehicles/${quote}/circuits/${quote}`,
      '/%E0%A4%A',
    ]) {
      const { status } = await fetch(`${app.url}${to}`);
      expect([to, [400, 404].includes(status)]).toEqual([to, true]);
    }
    // These ask for something that may be odd and still is answered.
    for (const to of [
      `/vehicles?slot=${quote}`,
      `/follow-ups?after=${quote}`,
      `/jobs/new?vehicle=${quote}`,
      `/api/search?text=${quote}`,
    ]) {
      expect([to, (await fetch(`${app.url}${to}`)).status]).toEqual([to, 200]);
    }
    for (const [body, words] of [
      ['{', 'not JSON'],
      ['null', 'A batch is'],
      [JSON.stringify({ events: [eventOf({ clientOrder: 3e9 })] }), 'at most 2147483647'],
      [
        JSON.stringify({ events: [eventOf({ madeAt: '2026-02-31T10:00:00Z' })] }),
        'no moment of the calendar',
      ],
      [
        JSON.stringify({ events: [eventOf({ body: { kind: 'note', words: 'a\u0000b' } })] }),
        'cannot be kept',
      ],
      [
        JSON.stringify({ events: [eventOf({ body: { kind: 'note', words: 'a\ud800b' } })] }),
        'cannot be kept',
      ],
    ] as const) {
      const answer = await post('/api/events', body);
      expect(answer.status).toBe(400);
      expect(((await answer.json()) as { message: string }).message).toContain(words);
    }
    expect((await post('/api/events', Buffer.from([0x7b, 0xff, 0xfe]))).status).toBe(400);
    for (const to of [
      '/api/jobs',
      `/api/jobs/${ID}/facts`,
      `/api/vehicles/${ID}/facts`,
      `/api/vehicles/${ID}/import`,
      '/api/follow-ups/feed',
    ]) {
      expect([to, (await post(to, '{"id":1}')).status]).toEqual([to, 400]);
      expect([to, (await post(to, '{}', 'text/plain')).status]).toEqual([to, 415]);
    }
  });

  test('and is too much is refused before it is read, with its true size; the server goes on answering', async () => {
    const wrong = JSON.stringify({
      events: Array.from({ length: 40_000 }, () => ({ wrong: { deep: [1, 2, 3] }, a: 1, b: 2, c: 3 })),
    });
    const large = await post('/api/events', `${wrong}${' '.repeat(4 * 1024 * 1024)}`);
    expect(large.status).toBe(413);
    expect(((await large.json()) as { message: string }).message).toMatch(/has [56]\.\d MB; at most 1 MB/);
    const many = await post(
      '/api/events',
      JSON.stringify({ events: Array.from({ length: 500 }, () => ({ wrong: 1, a: 1, b: 2, c: 3 })) }),
    );
    expect(many.status).toBe(400);
    expect(((await many.json()) as { problems: unknown[] }).problems.length).toBeLessThanOrEqual(201);
    // Slots that all lie over one another, 1.9 MB of them, as a panel set.
    const text = JSON.stringify(heapOfSlots(25, 400));
    const [van] = await app.query<{ id: string }>("select id from vehicles where name = 'Bakery van'");
    let longest = 0;
    let over = false;
    const watching = (async () => {
      while (!over) {
        const started = performance.now();
        await fetch(`${app.url}/api/health`);
        longest = Math.max(longest, performance.now() - started);
      }
    })();
    const began = performance.now();
    const heap = await post(
      `/api/vehicles/${van?.id}/import`,
      JSON.stringify({ id: crypto.randomUUID(), text }),
    );
    const texts = await post(
      `/api/vehicles/${van?.id}/import`,
      JSON.stringify({ id: crypto.randomUUID(), text: `circuit a "A" 12 V\n${'battery, '.repeat(40_000)}` }),
    );
    const took = performance.now() - began;
    over = true;
    await watching;
    console.log(
      `two files nobody means: ${took.toFixed(0)} ms; longest wait of another request meanwhile ${longest.toFixed(0)} ms`,
    );
    expect([heap.status, texts.status]).toEqual([400, 400]);
    const { problems } = (await heap.json()) as { problems: { message: string }[] };
    expect(problems).toHaveLength(201);
    expect(problems.at(-1)?.message).toMatch(/^\d{6,} further problems are not listed/);
  });
});
