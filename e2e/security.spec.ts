/**
 * `npm run security`: every route and page from six wrong positions, and what else keeps a shop to itself. No browser is
 * needed: an attacker has none either.
 */
import { type ChildProcess, spawn } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import http from 'node:http';
import net from 'node:net';
import path from 'node:path';
import sharp from 'sharp';
import { shopRows } from '../testing/shopRows';
import { type App, openApp } from './app';
import { expect, test } from './test';

const ROOT = path.resolve(import.meta.dirname ?? '.', '..');
const PASSWORD = 'seven brass lanterns';

let app: App;

interface Asked {
  readonly method?: string;
  readonly body?: unknown;
  readonly type?: string;
  readonly headers?: Record<string, string>;
}
interface Answer {
  readonly status: number;
  readonly headers: http.IncomingHttpHeaders;
  readonly text: string;
}

/** Asks as no browser would: any host, any origin. A stream is left after its first words. */
function ask(base: string, place: string, asked: Asked = {}): Promise<Answer> {
  const { method = 'GET', body, type = 'application/json', headers = {} } = asked;
  const bytes =
    body === undefined
      ? null
      : Buffer.isBuffer(body) || typeof body === 'string'
        ? body
        : JSON.stringify(body);
  return new Promise((resolve, reject) => {
    const request = http.request(
      new URL(place, base),
      { method, headers: { ...(bytes === null ? {} : { 'Content-Type': type }), ...headers } },
      (response) => {
        const chunks: Buffer[] = [];
        const done = () =>
          resolve({
            status: response.statusCode ?? 0,
            headers: response.headers,
            text: Buffer.concat(chunks).toString('utf8'),
          });
        response.on('data', (chunk: Buffer) => {
          chunks.push(chunk);
          if (response.headers['content-type']?.startsWith('text/event-stream')) {
            done();
            request.destroy();
          }
        });
        response.on('end', done);
      },
    );
    request.on('error', reject);
    if (bytes !== null) request.write(bytes);
    request.end();
  });
}

const cookiesOf = ({ headers }: Answer) =>
  (headers['set-cookie'] ?? [])
    .map((one) => one.split(';')[0]!)
    .filter((one) => !one.endsWith('='))
    .join('; ');

/** People of the shop that the demo becomes here, with accounts of their own; and the owner of another shop. */
interface Sessions {
  readonly owner: string;
  readonly technician: string;
  readonly learner: string;
  readonly other: string;
  readonly ended: string;
}

let sessions: Sessions;
let shop: string;

async function account(name: string, signIn: string): Promise<string> {
  const token = `${signIn}-token-of-a-link-for-this-test`.slice(0, 40);
  await app.query(
    `insert into entry_links (id, shop_id, person_id, token_hash, expires_at)
     select gen_random_uuid(), shop_id, id, $2, now() + interval '1 day' from people where name = $1`,
    [name, createHash('sha256').update(token).digest('base64url')],
  );
  const entered = await ask(app.url, '/api/access/entry', {
    method: 'POST',
    body: { token, name: signIn, password: PASSWORD },
  });
  expect([name, entered.status]).toEqual([name, 200]);
  return cookiesOf(entered);
}

/** What stands in addresses and bodies: everything is there, in the shop that none of this may reach. */
interface Ids {
  readonly vehicle: string;
  readonly job: string;
  readonly photo: string;
  readonly item: string;
  readonly place: string;
  readonly person: string;
  readonly owner: string;
}

let ids: Ids;

/** Files of that shop as it gives them out, and a picture: what is brought in is what the program takes. */
let files: { readonly job: string; readonly circuit: string; readonly picture: Buffer };

test.beforeEach(async () => {
  app = await openApp();
  const begun = await ask(app.url, '/api/access/begin', {
    method: 'POST',
    body: { shop: 'Harl Marine', town: 'Harl', owner: 'Ines Harl', name: 'ines', password: PASSWORD },
  });
  expect(begun.status).toBe(200);
  await app.query('update shops set demo = false');
  sessions = {
    other: cookiesOf(begun),
    owner: await account('Josune Wray', 'josune'),
    technician: await account('Imre Pellow', 'imre'),
    learner: await account('Bryn Tallis', 'bryn'),
    ended: '',
  };
  const again = await ask(app.url, '/api/access/sign-in', {
    method: 'POST',
    body: { name: 'josune', password: PASSWORD },
  });
  const ended = cookiesOf(again);
  await ask(app.url, '/api/access/sign-out', { method: 'POST', body: {}, headers: { cookie: ended } });
  sessions = { ...sessions, ended };
  const photo = randomUUID();
  await app.query(
    `insert into photos (id, shop_id, job_id, person_id, kind, bytes)
     select $1, shop_id, id, opened_by, 'image/jpeg', '\\xffd8ffd9' from jobs where title like 'Heated mirrors%'`,
    [photo],
  );
  const [found] = await app.query<Ids & { shop: string }>(
    `select shops.id as shop, $1::text as photo,
      (select id from vehicles where name = 'Bakery van') as vehicle,
      (select id from jobs where title like 'Heated mirrors%') as job,
      (select id from stock_items limit 1) as item, (select id from stock_places limit 1) as place,
      (select id from people where name = 'Imre Pellow') as person,
      (select id from people where name = 'Josune Wray') as owner
     from shops where name like 'Pellow%'`,
    [photo],
  );
  ids = found!;
  shop = found!.shop;
  const of = async (place: string) =>
    (await ask(app.url, place, { headers: { cookie: sessions.owner } })).text;
  files = {
    job: await of(`/api/jobs/${ids.job}/file`),
    circuit: await of(`/api/vehicles/${ids.vehicle}/circuits/van-proving-cabinet`),
    picture: await sharp({ create: { width: 8, height: 8, channels: 3, background: '#963' } })
      .jpeg()
      .toBuffer(),
  };
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

type Make = () => { readonly to: string; readonly body?: unknown; readonly type?: string };

const id = () => randomUUID();
const job = () => ids.job;
const vehicle = () => ids.vehicle;

/** What was learned of a fuse of the vehicle, which its circuit has. */
const fact = () => {
  const { parts } = JSON.parse(files.circuit) as { parts: { id: string; kind: string; name: string }[] };
  const { id: part, name } = parts.find(({ kind }) => kind === 'fuse')!;
  return { id: id(), part, fields: { name }, was: { name } };
};
const PLAN = { format: 'every-trace/plan', version: 1, id: 'p', name: 'A lamp', purpose: '', edits: [] };

/** One good request for each method of each route that needs somebody: good, but for who sends it. */
const REQUESTS: Readonly<Record<string, Make>> = {
  'GET /api/commands': () => ({ to: '/api/commands' }),
  'GET /api/events': () => ({ to: `/api/events?job=${job()}&after=0` }),
  'POST /api/events': () => ({
    to: '/api/events',
    body: {
      events: [
        {
          id: id(),
          jobId: job(),
          version: 1,
          madeAt: '2026-11-30T10:00:00Z',
          clientOrder: 900,
          body: { kind: 'note', words: 'From elsewhere' },
        },
      ],
    },
  }),
  'GET /api/follow-ups': () => ({ to: '/api/follow-ups' }),
  'POST /api/follow-ups/feed': () => ({ to: '/api/follow-ups/feed', body: { id: id() } }),
  'POST /api/jobs': () => ({
    to: '/api/jobs',
    body: { id: id(), title: 'From elsewhere', vehicleId: vehicle() },
  }),
  'POST /api/jobs/import': () => ({ to: '/api/jobs/import', body: { id: id(), text: files.job } }),
  'GET /api/jobs/[id]': () => ({ to: `/api/jobs/${job()}` }),
  'POST /api/jobs/[id]/carry-out': () => ({
    to: `/api/jobs/${job()}/carry-out`,
    body: { id: id(), plan: 'p' },
  }),
  'POST /api/jobs/[id]/facts': () => ({
    to: `/api/jobs/${job()}/facts`,
    body: fact(),
  }),
  'GET /api/jobs/[id]/file': () => ({ to: `/api/jobs/${job()}/file` }),
  'GET /api/jobs/[id]/guests': () => ({ to: `/api/jobs/${job()}/guests` }),
  'POST /api/jobs/[id]/guests': () => ({
    to: `/api/jobs/${job()}/guests`,
    body: { kind: 'make', sheet: 'technician', days: 7, forWhom: 'me' },
  }),
  'GET /api/jobs/[id]/helper': () => ({ to: `/api/jobs/${job()}/helper` }),
  'POST /api/jobs/[id]/helper': () => ({
    to: `/api/jobs/${job()}/helper`,
    body: { kind: 'ask', card: 'a', settings: ['Key: on'] },
  }),
  'GET /api/jobs/[id]/labels': () => ({ to: `/api/jobs/${job()}/labels` }),
  'GET /api/jobs/[id]/live': () => ({ to: `/api/jobs/${job()}/live?page=${id()}` }),
  'GET /api/jobs/[id]/newest': () => ({ to: `/api/jobs/${job()}/newest` }),
  'POST /api/jobs/[id]/newest': () => ({ to: `/api/jobs/${job()}/newest`, body: { id: id() } }),
  'GET /api/jobs/[id]/sheet': () => ({ to: `/api/jobs/${job()}/sheet` }),
  'GET /api/jobs/[id]/work': () => ({ to: `/api/jobs/${job()}/work?plan=p` }),
  'GET /api/me': () => ({ to: '/api/me' }),
  'POST /api/me': () => ({
    to: '/api/me',
    body: {
      id: id(),
      hand: {
        without: [],
        lampVolts: [12],
        fuses: 'probe',
        tester: 'lamp',
        exchange: 'early',
        isolation: 'by-task',
      },
    },
  }),
  'POST /api/access/self': () => ({ to: '/api/access/self', body: { kind: 'shop', person: ids.owner } }),
  'POST /api/people': () => ({
    to: '/api/people',
    body: { kind: 'role', person: ids.person, role: 'owner' },
  }),
  'POST /api/photos': () => ({
    to: `/api/photos?job=${job()}&id=${id()}`,
    body: files.picture,
    type: 'image/jpeg',
  }),
  'GET /api/photos/[id]': () => ({ to: `/api/photos/${ids.photo}` }),
  'GET /api/search': () => ({ to: '/api/search?text=bakery' }),
  'GET /api/shop/backup': () => ({ to: '/api/shop/backup' }),
  'POST /api/shop/learning': () => ({ to: '/api/shop/learning', body: { id: id() } }),
  'POST /api/shop/rate': () => ({ to: '/api/shop/rate', body: { id: id(), rate: 1 } }),
  'GET /api/shop/recipes': () => ({ to: '/api/shop/recipes' }),
  'POST /api/shop/recipes': () => ({
    to: '/api/shop/recipes',
    body: { id: id(), name: 'From elsewhere', plan: PLAN, rests: [] },
  }),
  'GET /api/stock': () => ({ to: '/api/stock' }),
  'POST /api/stock': () => ({
    to: '/api/stock',
    body: { kind: 'scrapped', id: id(), item: ids.item, place: ids.place, count: 1, words: '' },
  }),
  'GET /api/stock/csv': () => ({ to: '/api/stock/csv' }),
  'GET /api/stock/moves': () => ({ to: `/api/stock/moves?item=${ids.item}` }),
  'GET /api/stock/orders': () => ({ to: '/api/stock/orders' }),
  'GET /api/vehicles': () => ({ to: '/api/vehicles?text=bakery' }),
  'POST /api/vehicles': () => ({
    to: '/api/vehicles',
    body: { id: id(), vehicleId: vehicle(), name: 'From elsewhere' },
  }),
  'POST /api/vehicles/[id]': () => ({
    to: `/api/vehicles/${vehicle()}`,
    body: { kind: 'archive', id: id(), archived: true },
  }),
  'GET /api/vehicles/[id]/circuits/[file]': () => ({
    to: `/api/vehicles/${vehicle()}/circuits/van-proving-cabinet`,
  }),
  'POST /api/vehicles/[id]/facts': () => ({
    to: `/api/vehicles/${vehicle()}/facts`,
    body: fact(),
  }),
  'GET /api/vehicles/[id]/functions': () => ({ to: `/api/vehicles/${vehicle()}/functions` }),
  'POST /api/vehicles/[id]/import': () => ({
    to: `/api/vehicles/${vehicle()}/import`,
    body: { id: id(), text: files.circuit },
  }),
  'GET /api/vehicles/[id]/panels': () => ({ to: `/api/vehicles/${vehicle()}/panels` }),
  'GET /api/vehicles/[id]/panels/[panel]': () => ({ to: `/api/vehicles/${vehicle()}/panels/cab` }),
  'POST /api/vehicles/[id]/panels/copy': () => ({
    to: `/api/vehicles/${vehicle()}/panels/copy`,
    body: `from=${vehicle()}`,
    type: 'application/x-www-form-urlencoded',
  }),
  'POST /api/vehicles/[id]/undo': () => ({
    to: `/api/vehicles/${vehicle()}/undo`,
    body: { id: id(), job: job(), plan: 'p' },
  }),
};

interface Route {
  readonly name: string;
  readonly need: string | null;
}

/** All methods of all routes, by their files: what they need, or that they need nobody. */
function routes(): Route[] {
  const folder = path.join(ROOT, 'src/app');
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((one) =>
    one.endsWith('route.ts'),
  );
  return files.flatMap((file) => {
    const text = readFileSync(path.join(folder, file), 'utf8');
    const address = `/${path.dirname(file)}`;
    return [
      ...text.matchAll(/export const (GET|POST|PUT|PATCH|DELETE) = (door|open)[^(]*\(\s*'([^']*)'/g),
    ].map(([, method, kind, need]) => ({
      name: `${method} ${address}`,
      need: kind === 'door' ? need! : null,
    }));
  });
}

const closed = () => routes().filter(({ need }) => need !== null);

async function send(
  name: string,
  cookie: string | null,
  more: Record<string, string> = {},
  base = app.url,
): Promise<Answer> {
  const { to, body, type } = REQUESTS[name]!();
  return ask(base, to, {
    method: name.split(' ')[0]!,
    body,
    ...(type ? { type } : {}),
    headers: { ...(cookie ? { cookie } : {}), ...more },
  });
}

/** Whether a request names something of that shop. */
function asksForThisShop(name: string): boolean {
  const asked = JSON.stringify(REQUESTS[name]!());
  return Object.values(ids).some((one) => asked.includes(one));
}

/** A job file may be brought in by anybody who has it: it is a job of their own shop then. */
const BROUGHT = 'POST /api/jobs/import';

/** A list, or one thing, of which this shop has none. */
const isEmpty = ({ status, text }: Answer) => status === 200 && /^\{"\w+":(\[\]|null)\}$/.test(text);

/** Words that only the shop's own pages and answers hold. */
const MARKS = ['Bakery van', 'Heated mirrors', 'Imre Pellow', 'Mini blade 15 A', 'Josune', 'Pellow'];

test('every route from six wrong positions: nobody, an ended session, another shop, too low a role, a foreign origin, a foreign host', async () => {
  test.setTimeout(240_000);
  // A route that is added is added here, or this fails.
  expect(
    closed()
      .map(({ name }) => name)
      .sort(),
  ).toEqual(Object.keys(REQUESTS).sort());
  const before = await shopRows(app.databaseUrl, shop);
  let tried = 0;
  const wrong: string[] = [];
  const expectStatus = (
    position: string,
    name: string,
    { status, text }: Answer,
    right: readonly number[],
  ) => {
    tried += 1;
    if (!right.includes(status)) wrong.push(`${position}: ${name} answered ${status} ${text.slice(0, 80)}`);
    const told = MARKS.filter((mark) => text.includes(mark));
    if (told.length > 0) wrong.push(`${position}: ${name} told ${told.join()}`);
  };
  for (const { name, need } of closed()) {
    expectStatus('nobody', name, await send(name, null), [401]);
    expectStatus('ended session', name, await send(name, sessions.ended), [401]);
    expectStatus('made-up session', name, await send(name, 'every-trace.session_token=aaaa.bbbb'), [401]);
    // The owner of another shop may do all of this at home: what is of this shop is not there.
    const other = await send(name, sessions.other);
    if (name !== BROUGHT && !isEmpty(other))
      expectStatus('another shop', name, other, asksForThisShop(name) ? [303, 400, 404, 409] : [200]);
    if (need === 'own') {
      for (const role of ['technician', 'learner'] as const)
        expectStatus(role, name, await send(name, sessions[role]), [403]);
    }
    if (need === 'lead') expectStatus('learner', name, await send(name, sessions.learner), [403]);
    for (const origin of ['https://evil.example', 'null', `${app.url}0`]) {
      expectStatus(`origin ${origin}`, name, await send(name, sessions.owner, { origin }), [403]);
    }
    expectStatus(
      'foreign site',
      name,
      await send(name, sessions.owner, { 'sec-fetch-site': 'cross-site' }),
      [403],
    );
    expectStatus('foreign host', name, await send(name, sessions.owner, { host: 'evil.example' }), [403]);
    expectStatus(
      'foreign host',
      name,
      await send(name, sessions.owner, { host: 'evil.example:4012' }),
      [403],
    );
  }
  expect(wrong).toEqual([]);
  const after = await shopRows(app.databaseUrl, shop);
  expect(after).toEqual(before);
  console.log(
    `${closed().length} routes, ${tried} requests from wrong positions, none answered, nothing of the shop moved`,
  );
});

/** Good requests that the program refuses for what there is, also to whom it is: what it says then. */
const REFUSED_AT_HOME: Readonly<Record<string, string>> = {
  'POST /api/jobs/[id]/carry-out': 'The job has no such plan.',
  'POST /api/vehicles/[id]/undo': 'There is no such change to undo.',
  'POST /api/jobs/import': 'This job is here already',
};

test('control: each of these requests does what it says for the owner of the shop, or is refused for another reason', async () => {
  const wrong: string[] = [];
  for (const { name } of closed()) {
    const other = await send(name, sessions.other);
    const { status, text } = await send(name, sessions.owner);
    const words = REFUSED_AT_HOME[name];
    if (words === undefined ? status !== 200 && status !== 303 : !text.includes(words))
      wrong.push(`${name} answered its owner ${status} ${text.slice(0, 120)}`);
    if (words !== undefined && other.text.includes(words))
      wrong.push(`${name} told another shop what it told the owner: ${words}`);
  }
  expect(wrong).toEqual([]);
});

test('every page from the same positions', async () => {
  const places = [
    '/',
    '/vehicles',
    '/jobs',
    '/jobs/new',
    '/stock',
    '/stock/count',
    '/shop',
    '/follow-ups',
    '/hazards',
    '/sums',
    `/vehicles/${ids.vehicle}`,
    `/vehicles/${ids.vehicle}/panels`,
    `/vehicles/${ids.vehicle}/panels/edit`,
    `/vehicles/${ids.vehicle}/panels/print`,
    `/vehicles/${ids.vehicle}/feed`,
    `/vehicles/${ids.vehicle}/circuits/van-proving-cabinet`,
    `/vehicles/${ids.vehicle}/circuits/new`,
    `/jobs/new?vehicle=${ids.vehicle}`,
    `/jobs?vehicle=${ids.vehicle}`,
    `/jobs/${ids.job}`,
    `/jobs/${ids.job}/sheet`,
  ];
  const wrong: string[] = [];
  for (const place of places) {
    // The one document of work views is the same for everybody, and holds nothing.
    const work = /^\/jobs\/[0-9a-f]/.test(place);
    for (const [position, headers] of [
      ['nobody', {}],
      ['ended session', { cookie: sessions.ended }],
      ['another shop', { cookie: sessions.other }],
      ['foreign host', { cookie: sessions.owner, host: 'evil.example' }],
    ] as const) {
      const { status, text, headers: got } = await ask(app.url, place, { headers });
      const out = position === 'nobody' || position === 'ended session';
      const right =
        position === 'foreign host'
          ? status === 403
          : out && !work
            ? status === 307
            : status === 200 || status === 404;
      if (!right) wrong.push(`${position}: ${place} answered ${status}`);
      if (out && !work && !got.location?.startsWith('/sign-in'))
        wrong.push(`${position}: ${place} led to ${got.location}`);
      const told = MARKS.filter((mark) => text.includes(mark));
      if (told.length > 0) wrong.push(`${position}: ${place} told ${told.join()}`);
    }
  }
  expect(wrong).toEqual([]);
});

test('tries are limited over two processes, and by what is tried: no right password gets past the wait', async () => {
  const port = await new Promise<number>((resolve) => {
    const server = net.createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port: free } = server.address() as net.AddressInfo;
      server.close(() => resolve(free));
    });
  });
  const second: ChildProcess = spawn(
    process.execPath,
    [path.join(ROOT, 'node_modules/next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(port)],
    {
      cwd: ROOT,
      stdio: 'ignore',
      env: { ...process.env, NODE_ENV: 'production', DATABASE_URL: app.databaseUrl },
    },
  );
  const bases = [app.url, `http://127.0.0.1:${port}`];
  try {
    await expect
      .poll(
        () =>
          ask(bases[1]!, '/api/health').then(
            (answer) => answer.status,
            () => 0,
          ),
        { timeout: 20_000 },
      )
      .toBe(200);
    const once = (base: string, password: string) =>
      ask(base, '/api/access/sign-in', { method: 'POST', body: { name: 'josune', password } });
    /** A server that is too busy says so, and is asked again as a person would. */
    const signIn = async (base: string, password: string) => {
      let answer = await once(base, password);
      while (answer.status === 503) {
        await new Promise((resolve) => setTimeout(resolve, 500));
        answer = await once(base, password);
      }
      return answer;
    };
    // Both at once: whoever comes later counts all the same. One that was counted and then too busy is not judged.
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, at) => signIn(bases[at % 2]!, `wrong ${at}`)),
    );
    const judged = answers.filter(({ status }) => status === 401).length;
    const halted = answers.filter(({ status }) => status === 429).length;
    expect(judged).toBeLessThanOrEqual(8);
    expect([judged > 0, judged + halted]).toEqual([true, 20]);
    for (const base of bases) expect((await signIn(base, PASSWORD)).status).toBe(429);
    // Another name is not kept out by it.
    const other = await ask(bases[1]!, '/api/access/sign-in', {
      method: 'POST',
      body: { name: 'imre', password: PASSWORD },
    });
    expect(other.status).toBe(200);
    // The wait is told in words, and says nothing of whether there is such a name.
    const known = await signIn(bases[0]!, 'x');
    expect(JSON.parse(known.text)).toMatchObject({
      message: expect.stringMatching(/^Too many tries\. Wait \d+ minutes/),
    });
    await app.query('delete from tries');
    const nobody = await ask(app.url, '/api/access/sign-in', {
      method: 'POST',
      body: { name: 'nobody', password: 'x' },
    });
    const somebody = await signIn(bases[0]!, 'x');
    expect(nobody.text).toBe(somebody.text);
  } finally {
    second.kill('SIGKILL');
  }
});

test('a session is never carried over: not from before signing in, not past signing out, a new password or leaving', async () => {
  const mine = { cookie: sessions.technician };
  const me = (cookie: string) =>
    ask(app.url, '/api/me', { headers: { cookie } }).then(({ status }) => status);
  expect(await me(sessions.technician)).toBe(200);
  // Somebody plants a session of theirs in this browser; whoever signs in gets a new one, and the planted one ends.
  const signedIn = await ask(app.url, '/api/access/sign-in', {
    method: 'POST',
    body: { name: 'bryn', password: PASSWORD },
    headers: mine,
  });
  const fresh = cookiesOf(signedIn);
  expect(fresh).not.toBe(sessions.technician);
  expect([await me(fresh), await me(sessions.technician)]).toEqual([200, 401]);
  const cookie = signedIn.headers['set-cookie']!.find((one) => one.includes('session_token'))!;
  expect(cookie).toMatch(/HttpOnly/);
  expect(cookie).toMatch(/SameSite=Lax/);
  expect(cookie).toMatch(/Path=\//);
  expect(cookie).not.toMatch(/Domain=/);
  const [, token] = /session_token=([^;.]+)/.exec(cookie)!;
  expect(token!.length).toBeGreaterThanOrEqual(32);
  // A new password ends all others; a wrong one changes nothing.
  const twice = cookiesOf(
    await ask(app.url, '/api/access/sign-in', { method: 'POST', body: { name: 'bryn', password: PASSWORD } }),
  );
  const change = (now: string) =>
    ask(app.url, '/api/access/self', {
      method: 'POST',
      body: { kind: 'password', now, next: 'four quiet copper herons' },
      headers: { cookie: fresh },
    });
  expect((await change('wrong')).status).toBe(400);
  expect(await me(twice)).toBe(200);
  expect((await change(PASSWORD)).status).toBe(200);
  expect([await me(fresh), await me(twice)]).toEqual([200, 401]);
  await ask(app.url, '/api/access/sign-out', { method: 'POST', body: {}, headers: { cookie: fresh } });
  expect(await me(fresh)).toBe(401);
  // What is kept of secrets are hashes.
  const [kept] = await app.query<{ password: string; codes: number }>(
    `select (select password from accounts limit 1) as password, (select count(*)::integer from people where code_hash ~ '^[0-9]{4,8}$') as codes`,
  );
  expect(kept?.password).toMatch(/^[0-9a-f]{32}:[0-9a-f]{128}$/);
  expect(kept?.codes).toBe(0);
});

test('every answer says what it may run and where it may stand, and tells nothing of the program', async () => {
  for (const place of [
    '/sign-in',
    '/begin',
    '/key',
    '/guest/x',
    '/enter/x',
    `/jobs/${ids.job}`,
    '/',
    '/no-such-page',
    '/api/me',
    '/api/health',
  ]) {
    const { headers } = await ask(app.url, place, { headers: { cookie: sessions.owner } });
    const policy = String(headers['content-security-policy']);
    expect([place, /script-src 'self' [^;]*'(nonce|sha256)-|script-src 'self' ;/.test(policy)]).toEqual([
      place,
      true,
    ]);
    expect([place, policy.includes('unsafe-eval')]).toEqual([place, false]);
    expect([place, /script-src[^;]*unsafe-inline/.test(policy)]).toEqual([place, false]);
    expect([place, policy.includes("frame-ancestors 'none'")]).toEqual([place, true]);
    expect(headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'x-frame-options': 'DENY',
      'referrer-policy': 'same-origin',
    });
    expect(headers['x-powered-by']).toBeUndefined();
    expect(headers.server).toBeUndefined();
  }
  // Going on after signing in stays here, whatever an address says.
  for (const to of [
    'https://evil.example',
    '//evil.example',
    '/\\evil.example',
    'javascript:alert(1)',
    '/api/shop/backup',
  ]) {
    const { text } = await ask(app.url, `/sign-in?to=${encodeURIComponent(to)}`);
    expect([to, text.includes('evil.example/') || text.includes('"to":"/api')]).toEqual([to, false]);
  }
});

test('what comes in as a picture is one by what it holds; no name, page or program comes back as one', async () => {
  const wrong: [string, Buffer, string][] = [
    ['a page', Buffer.from('<html><script>alert(1)</script></html>'), 'image/jpeg'],
    [
      'a drawing with a script',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'),
      'image/svg+xml',
    ],
    [
      'a drawing that says it is a photo',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'),
      'image/png',
    ],
    ['a program', Buffer.from('4d5a90000300000004000000ffff0000', 'hex'), 'image/png'],
    ['the beginning of a photo', Buffer.from('ffd8ffe000104a46494600010100', 'hex'), 'image/jpeg'],
  ];
  for (const [what, bytes, type] of wrong) {
    const answer = await ask(app.url, `/api/photos?job=${ids.job}&id=${randomUUID()}`, {
      method: 'POST',
      body: bytes,
      type,
      headers: { cookie: sessions.technician },
    });
    expect([what, answer.status]).toEqual([what, 400]);
  }
  const { headers } = await ask(app.url, `/api/photos/${ids.photo}`, {
    headers: { cookie: sessions.technician },
  });
  expect(headers).toMatchObject({ 'content-type': 'image/jpeg', 'x-content-type-options': 'nosniff' });
});

test('no secret is in an error or in what the server writes down', async () => {
  const port = await new Promise<number>((resolve) => {
    const server = net.createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port: free } = server.address() as net.AddressInfo;
      server.close(() => resolve(free));
    });
  });
  const loud = spawn(
    process.execPath,
    [path.join(ROOT, 'node_modules/next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(port)],
    {
      cwd: ROOT,
      env: {
        ...process.env,
        NODE_ENV: 'production',
        DATABASE_URL: app.databaseUrl,
        EVERY_TRACE_LOG: 'trace',
      },
    },
  );
  let written = '';
  for (const stream of [loud.stdout, loud.stderr]) {
    stream.setEncoding('utf8').on('data', (text: string) => {
      written += text;
    });
  }
  const base = `http://127.0.0.1:${port}`;
  const answers: string[] = [];
  let owner = '';
  const told = async (place: string, asked: Asked = {}) => {
    const answer = await ask(base, place, asked);
    answers.push(answer.text);
    return answer;
  };
  try {
    await expect
      .poll(
        () =>
          ask(base, '/api/health').then(
            (answer) => answer.status,
            () => 0,
          ),
        { timeout: 20_000 },
      )
      .toBe(200);
    const post = { method: 'POST' } as const;
    owner = cookiesOf(
      await ask(base, '/api/access/sign-in', { ...post, body: { name: 'josune', password: PASSWORD } }),
    );
    expect((await ask(base, '/api/me', { headers: { cookie: owner } })).status).toBe(200);
    await told('/api/access/sign-in', { ...post, body: { name: 'josune', password: 'a-secret-password-1' } });
    await told('/api/access/entry', {
      ...post,
      body: { token: 'a-secret-token-of-a-link-2', name: 'x', password: 'a-secret-password-3' },
    });
    await told('/api/access/code', { ...post, body: { person: ids.owner, code: '48151623' } });
    await told('/api/follow-ups/feed/a-secret-feed-4');
    // The page of a link holds its own address, and nobody else's.
    await ask(base, '/guest/a-secret-guest-link-5');
    await told('/api/access/self', {
      ...post,
      headers: { cookie: owner },
      body: { kind: 'password', now: 'a-secret-password-6', next: 'a-secret-password-7' },
    });
    // The database away in the middle of a request.
    await app.query('alter table accounts rename to accounts_gone');
    await told('/api/access/sign-in', { ...post, body: { name: 'josune', password: 'a-secret-password-8' } });
    await app.query('alter table accounts_gone rename to accounts');
    await app.query('alter table people rename to people_gone');
    await ask(base, '/enter/a-secret-of-a-link-9');
    await ask(base, '/guest/a-secret-guest-link-10');
    await told('/', { headers: { cookie: owner } });
    await told('/api/me', { headers: { cookie: owner } });
    await app.query('alter table people_gone rename to people');
    await app.query('alter table sessions rename to sessions_gone');
    // Nobody is told to sign in because the database cannot say who is.
    expect((await told('/api/me', { headers: { cookie: owner } })).status).toBe(503);
    await app.query('alter table sessions_gone rename to sessions');
  } finally {
    loud.kill('SIGKILL');
  }
  const { password } = new URL(app.databaseUrl);
  const secrets = ['a-secret', '48151623', PASSWORD, password, owner.split('=')[1]!.split('.')[0]!];
  for (const secret of secrets) {
    expect([secret, written.includes(secret)]).toEqual([secret, false]);
    expect([secret, answers.some((one) => one.includes(secret))]).toEqual([secret, false]);
  }
  expect(written).toContain('a route failed');
  expect(written).toContain('a page failed');
  for (const text of answers) expect(text).not.toMatch(/at .*\.(ts|js|mjs):\d+|select .* from|postgres:/i);
});
