/** A job opens from what the browser holds, and from the server where that answers. */
import 'fake-indexeddb/auto';
import type { LogEvent } from '#core/log';
import { browserDb } from './browserDb';
import { holdJob, letGo, readHeld } from './held';
import type { HeldJob } from './heldJob';
import type { OpenJob, jobOpener as opener } from './openJob';

const ID = '0a6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c';
const vehicle = {
  id: 'v',
  name: 'Van',
  make: '',
  model: '',
  year: null,
  plate: '',
  nominalVolts: 12,
  odometerKm: null,
};
const job = (title: string, id = ID): HeldJob => ({
  id,
  title,
  openedAt: '2026-03-03T10:00:00Z',
  vehicle,
  circuits: [],
  panelSet: null,
  priors: {} as HeldJob['priors'],
});
const entry = (seq: number, words = `entry ${seq}`): LogEvent => ({
  id: `0a6f8a52-3c7e-4f7e-9d62-00000000000${seq}`,
  seq,
  person: 'Imre Pellow',
  madeAt: new Date(seq).toISOString(),
  clientOrder: seq,
  body: { kind: 'note', words },
});

/** What the server has of jobs and entries; null while it is away. */
let server: { job: HeldJob | null; events: LogEvent[] } | null;
const asked: string[] = [];

beforeEach(async () => {
  server = { job: job('Fan dead'), events: [entry(1)] };
  asked.length = 0;
  const page = Object.assign(new EventTarget(), { location: {} });
  const there = Object.assign(new EventTarget(), {
    visibilityState: 'visible',
    documentElement: { dataset: {} },
  });
  Object.assign(globalThis, {
    window: page,
    document: there,
    fetch: async (url: string) => {
      asked.push(url);
      if (!server) throw new TypeError('no way there');
      if (url.startsWith('/api/events')) {
        const after = Number(new URL(url, 'http://here').searchParams.get('after'));
        return Response.json({ events: server.events.filter((one) => one.seq! > after) });
      }
      return server.job ? Response.json(server.job) : Response.json({ message: 'none' }, { status: 404 });
    },
  });
  await letGo(ID);
});

/** As a page that is loaded anew has it: nothing in memory, what the browser keeps is there. */
function loaded(): ReturnType<typeof opener> {
  let made: ReturnType<typeof opener> | undefined;
  jest.isolateModules(() => {
    const fresh = jest.requireActual<{ jobOpener: typeof opener }>('./openJob');
    made = fresh.jobOpener(ID);
  });
  return made!;
}

/** Waits for what happens in its own time. */
async function until(happened: () => boolean | Promise<boolean>): Promise<void> {
  const end = performance.now() + 4000;
  while (!(await happened())) {
    if (performance.now() > end) throw new Error('It did not happen.');
    await new Promise((resolve) => setTimeout(resolve, 2));
  }
}

/** Opened anew, until it is as `wanted` says: its title, or how it stands. */
async function opened(wanted: string) {
  const one = loaded();
  const states: OpenJob[] = [];
  one.subscribe(() => states.push(one.read()));
  const stop = one.start();
  await until(() => titleOf(one.read()) === wanted);
  return { states, opener: one, stop };
}

function titleOf(state: OpenJob | undefined): string | undefined {
  return state?.kind === 'open' ? state.job.title : state?.kind;
}

function wordsIn(state: OpenJob | undefined): string[] {
  return state?.kind === 'open'
    ? state.store.read().events.map(({ body }) => (body.kind === 'note' ? body.words : body.kind))
    : [];
}

test('what was opened once opens again with the server away, with its entries', async () => {
  (await opened('Fan dead')).stop();
  server = null;
  const { states, stop } = await opened('Fan dead');
  expect(states.map(titleOf)).toEqual(['Fan dead']);
  expect(wordsIn(states[0])).toEqual(['entry 1']);
  stop();
});

test('what is held shows at once, and what the server has since is taken in', async () => {
  (await opened('Fan dead')).stop();
  server = { job: job('Fan dead when hot'), events: [entry(1), entry(2)] };
  const { states, opener: one, stop } = await opened('Fan dead when hot');
  expect(states.map(titleOf)).toEqual(['Fan dead', 'Fan dead when hot']);
  const state = one.read();
  const end = state.kind === 'open' ? state.store.start() : () => undefined;
  await until(() => wordsIn(one.read()).join() === 'entry 1,entry 2');
  end();
  stop();
  // The entry that came later is held too.
  await until(async () => (await readHeld(ID))?.events.length === 2);
});

test('parts of the job that say the same are the same, so that nothing is worked out anew', async () => {
  const { opener: one, stop } = await opened('Fan dead');
  const before = one.read();
  await one.refresh();
  expect(one.read()).toBe(before);
  server!.job = job('Another title');
  await one.refresh();
  const after = one.read();
  if (before.kind !== 'open' || after.kind !== 'open') throw new Error('It is not open.');
  expect(after.job.title).toBe('Another title');
  expect(after.job.circuits).toBe(before.job.circuits);
  stop();
});

test('not held and no server is said, and it opens when the network is back', async () => {
  const there = server;
  server = null;
  const { states, opener: one, stop } = await opened('away');
  expect(states.map(titleOf)).toEqual(['away']);
  server = there;
  window.dispatchEvent(new Event('online'));
  await until(() => titleOf(one.read()) === 'Fan dead');
  stop();
});

test('a job that the server does not know is let go; a server in distress lets go of nothing', async () => {
  (await opened('Fan dead')).stop();
  let asks = 0;
  const answer = (made: () => Response) =>
    Object.assign(globalThis, {
      fetch: async () => {
        asks += 1;
        return made();
      },
    });
  answer(() => new Response('<p>Sign in to this network</p>'));
  const portal = await opened('Fan dead');
  await until(() => asks > 0);
  await portal.opener.refresh();
  expect(titleOf(portal.opener.read())).toBe('Fan dead');
  portal.stop();
  answer(() => Response.json({ message: 'none' }, { status: 404 }));
  (await opened('unknown')).stop();
  expect(await readHeld(ID)).toBeNull();
  expect(await (await browserDb()).getAllFromIndex('entries', 'byJob', ID)).toEqual([]);
});

test('one held by an earlier program is asked for anew', async () => {
  (await opened('Fan dead')).stop();
  const db = await browserDb();
  await db.put('jobs', { ...(await db.get('jobs', ID))!, form: '0' });
  expect(await readHeld(ID)).toBeNull();
});

test('the job that was opened longest ago makes room', async () => {
  const ids = Array.from(
    { length: 61 },
    (_, index) => `1a6f8a52-3c7e-4f7e-9d62-${String(index).padStart(12, '0')}`,
  );
  let now = 1;
  jest.spyOn(Date, 'now').mockImplementation(() => now++);
  for (const id of ids) await holdJob(job('One', id));
  const held = await Promise.all(ids.map(readHeld));
  expect(held.map((one) => one !== null)).toEqual(ids.map((_, index) => index > 0));
  jest.restoreAllMocks();
});

test('a change that falls into a question on its way is asked for after it, and shown', async () => {
  const { opener: one, stop } = await opened('Fan dead');
  const answerNow = globalThis.fetch;
  const waiting: (() => void)[] = [];
  // Each question is answered by what the server had when it was asked, and comes when it is let go.
  Object.assign(globalThis, {
    fetch: async (url: string) => {
      const answer = await answerNow(url);
      if (!url.startsWith('/api/events')) await new Promise<void>((resolve) => waiting.push(resolve));
      return answer;
    },
  });
  const first = one.refresh();
  await until(() => waiting.length === 1);
  server!.job = job('Fan dead when hot');
  const second = one.refresh();
  const third = one.refresh();
  waiting[0]!();
  await first;
  await until(() => waiting.length === 2);
  waiting[1]!();
  await Promise.all([second, third]);
  expect(titleOf(one.read())).toBe('Fan dead when hot');
  // Two that asked for the same change were answered by one question.
  expect(waiting).toHaveLength(2);
  stop();
});

test('several changes in a row are asked for once; weights stay as they were when the job was opened', async () => {
  const { opener: one, stop } = await opened('Fan dead');
  await one.refresh();
  asked.length = 0;
  server!.job = {
    ...job('Fan dead when hot'),
    priors: { fuse: { open: 9 } } as unknown as HeldJob['priors'],
  };
  one.lookAgain();
  one.lookAgain();
  one.lookAgain();
  await until(() => titleOf(one.read()) === 'Fan dead when hot');
  expect(asked.filter((url) => url.startsWith('/api/jobs'))).toHaveLength(1);
  const state = one.read();
  expect(state.kind === 'open' && state.job.priors).toEqual({});
  stop();
});
