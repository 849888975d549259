/** What the page says about sending, with a server and a browser store that are slow, away, or full. */
import { BATCH_LIMIT_BYTES } from '#core/format/checkEvent';
import type { JobEvent } from '#core/format/jobSchema';
import type { LogEvent } from '#core/log';
import { everythingWaiting, takeFromOutbox, type WaitingEvent, type WaitingPicture } from './outbox';
import { Sender } from './sender';
import { JobStore, loadChecks } from './store';

const JOB = '0a6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c';
const OTHER_JOB = '1a6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c';
/** What the browser keeps: entries and pictures, with the reason where one was refused. */
const kept = new Map<string, WaitingEvent>();
const photos = new Map<string, WaitingPicture>();
let storage: 'sound' | 'full' | 'silent' = 'sound';
/** What a browser store that never answers gives. */
const never = () => new Promise<never>(() => undefined);

jest.mock('./outbox', () => ({
  ...jest.requireActual<object>('./outbox'),
  putInOutbox: async (events: readonly JobEvent[]) => {
    if (storage === 'full') throw new Error('no room');
    if (storage === 'silent') await never();
    for (const event of events) kept.set(event.id, event);
  },
  takeFromOutbox: jest.fn(async (ids: readonly string[]) => {
    if (storage === 'silent') await never();
    for (const id of ids) kept.delete(id);
  }),
  everythingWaiting: jest.fn(async () => {
    if (storage === 'silent') await never();
    return { events: [...kept.values()], pictures: [...photos.values()] };
  }),
  markRefused: async (id: string, refused: string) => {
    const event = kept.get(id);
    if (event) kept.set(id, { ...event, refused });
  },
  putPicture: async (picture: WaitingPicture) => {
    if (storage === 'silent') await never();
    photos.set(picture.id, picture);
  },
  dropPicture: async (id: string) => photos.delete(id),
}));

/** A server that answers when it is told to. */
class Server {
  readonly stored: string[] = [];
  /** What others have recorded. */
  others: readonly LogEvent[] = [];
  readonly asked: string[] = [];
  private readonly open: (() => void)[] = [];
  answer: 'yes' | 'away' | 'broken' | 'garbled' | 'no' | 'no-picture' = 'yes';
  /** Letters of each batch that came. */
  readonly sizes: number[] = [];
  slow = false;
  /** Pictures, by their ids, that hang or that the server fails at. */
  readonly hangs = new Set<string>();
  readonly fails = new Set<string>();

  readonly fetch = async (url: string, init?: { body?: string | Blob }): Promise<Response> => {
    if (init?.body === undefined) {
      if (this.answer !== 'yes') throw new TypeError('no way there');
      const after = Number(new URL(url, 'http://here').searchParams.get('after'));
      return Response.json({ events: this.others.filter((event) => event.seq! > after) });
    }
    this.asked.push(url);
    if (this.slow) await new Promise<void>((resolve) => this.open.push(resolve));
    if (this.answer === 'away') throw new TypeError('no way there');
    if (this.answer === 'garbled') return new Response('<p>Log in to this network</p>');
    if (this.answer === 'broken') return new Response('', { status: 503 });
    if (url.startsWith('/api/photos')) {
      const id = new URL(url, 'http://here').searchParams.get('id')!;
      if (this.hangs.has(id)) await never();
      if (this.fails.has(id)) return new Response('', { status: 503 });
      return this.answer === 'no-picture'
        ? Response.json({ message: 'This is no picture.' }, { status: 415 })
        : Response.json({});
    }
    if (this.answer === 'no') {
      return Response.json({ message: 'The job is closed.', problems: [] }, { status: 409 });
    }
    this.sizes.push((init.body as string).length);
    const { events } = JSON.parse(init.body as string) as { events: JobEvent[] };
    if (events.some(({ body }) => body.kind === 'note' && body.words === 'garbled')) {
      return Response.json({ message: 'An entry cannot be read.', problems: [] }, { status: 400 });
    }
    for (const { id } of events) if (!this.stored.includes(id)) this.stored.push(id);
    const stored = events.map(({ id }) => ({ id, seq: this.stored.indexOf(id) + 1, person: 'Imre Pellow' }));
    return Response.json({ stored });
  };

  /** Lets the oldest request that waits go on. */
  go(): void {
    this.open.shift()?.();
  }
}

let server: Server;
let stop: () => void;
beforeEach(() => {
  kept.clear();
  photos.clear();
  storage = 'sound';
  server = new Server();
  stop = () => {};
  Object.assign(globalThis, {
    window: new EventTarget(),
    document: Object.assign(new EventTarget(), {
      visibilityState: 'visible',
      documentElement: { dataset: {} },
    }),
    requestAnimationFrame: (draw: () => void) => setTimeout(draw, 16),
    fetch: server.fetch,
  });
  jest.spyOn(console, 'warn').mockImplementation(() => {});
});
afterEach(() => stop());

/** Lets everything that waits for nothing but its turn happen. */
const settle = () => new Promise((resolve) => setTimeout(resolve, 5));
const note = (words: string) => ({ kind: 'note', words }) as const;

/** A page of the job, with a sender of its own as every page of a browser has. */
function page(events: readonly LogEvent[] = [], job = JOB): JobStore {
  const outgoing = new Sender();
  const store = new JobStore(job, events, outgoing);
  const ends = [outgoing.start(), store.start()];
  stop = () => {
    for (const end of ends) end();
  };
  return store;
}

async function opened(): Promise<JobStore> {
  const store = page();
  await settle();
  return store;
}

beforeAll(loadChecks);

test('an entry counts as recorded when the server has it, not before', async () => {
  const store = await opened();
  server.slow = true;
  store.record(note('one'));
  expect(store.read().sending).toEqual({ kind: 'sending', count: 1 });
  await settle();
  store.record(note('two'));
  server.go();
  await settle();
  // The first is there; the second is on its way.
  expect(store.read().events.map((event) => event.seq)).toEqual([1, null]);
  expect(store.read().sending).toEqual({ kind: 'sending', count: 1 });
  server.go();
  await settle();
  expect(store.read().events.map((event) => event.seq)).toEqual([1, 2]);
  expect(store.read().sending).toEqual({ kind: 'idle' });
  expect(kept.size).toBe(0);
});

test('what is recorded the moment a batch returns is sent without another nudge', async () => {
  const store = await opened();
  let told = false;
  store.subscribe(() => {
    if (!told && store.read().events.some((event) => event.seq !== null)) {
      told = true;
      store.record(note('at once'));
    }
  });
  store.record(note('first'));
  await settle();
  expect(server.stored).toHaveLength(2);
  expect(store.read().sending).toEqual({ kind: 'idle' });
});

test('a server that is away is said with the number that waits, and is tried again', async () => {
  for (const answer of ['away', 'broken', 'garbled'] as const) {
    const store = await opened();
    server.answer = answer;
    store.record(note('one'), note('two'));
    await settle();
    expect(store.read().sending).toEqual({ kind: 'waiting', count: 2 });
    expect(kept.size).toBe(2);
    server.answer = 'yes';
    window.dispatchEvent(new Event('online'));
    await settle();
    expect(store.read().sending).toEqual({ kind: 'idle' });
    expect(kept.size).toBe(0);
    stop();
  }
});

test('what another visit left is brought back in order and sent once, also when two pages send it', async () => {
  const first = await opened();
  server.answer = 'away';
  first.record(note('one'), note('two'));
  await settle();
  stop();
  server.answer = 'yes';
  const second = await opened();
  expect(second.read().events.map((event) => event.body)).toEqual([note('one'), note('two')]);
  expect(second.read().sending).toEqual({ kind: 'idle' });
  // The first page still holds them, and its browser store is empty by now.
  first.record(note('three'));
  await settle();
  expect(first.read().sending).toEqual({ kind: 'idle' });
  expect(server.stored).toHaveLength(3);
});

test('a browser that keeps nothing still sends', async () => {
  storage = 'full';
  jest.mocked(everythingWaiting).mockRejectedValueOnce(new Error('not allowed'));
  jest.mocked(takeFromOutbox).mockRejectedValueOnce(new Error('not allowed'));
  const store = await opened();
  store.record(note('one'));
  await settle();
  expect(server.stored).toHaveLength(1);
  expect(store.read().sending).toEqual({ kind: 'idle' });
});

test('a refusal is said in its words, and nothing is thrown away', async () => {
  const store = await opened();
  server.answer = 'no';
  store.record(note('one'));
  await settle();
  expect(store.read().sending).toEqual({ kind: 'refused', count: 1, message: 'The job is closed.' });
  expect(store.read().events).toHaveLength(1);
  expect(kept.size).toBe(1);
});

test('a picture goes after the entries that wait; one that is refused is kept with the reason until it is given up', async () => {
  const store = await opened();
  await store.keepPicture('p1', new Blob(['x']));
  expect(store.read().sending).toEqual({ kind: 'sending', count: 1 });
  store.record(note('with a picture'));
  await settle();
  expect(server.asked).toEqual(['/api/events', `/api/photos?job=${JOB}&id=p1`]);
  expect(store.read().pictures.size).toBe(0);
  server.answer = 'no-picture';
  const picture = new Blob(['x']);
  await store.keepPicture('p2', picture);
  store.record(note('with another'));
  await settle();
  // The entry is not kept back, and nothing else is said to wait.
  expect(store.read().sending).toEqual({ kind: 'idle' });
  expect(store.read().refusals).toEqual([{ id: 'p2', message: 'This is no picture.', what: { picture } }]);
  expect(photos.get('p2')?.blob).toBe(picture);
  stop();
  // The next visit has it, with the reason, also before the server was asked.
  server.answer = 'away';
  const next = await opened();
  expect(next.read().refusals).toMatchObject([{ id: 'p2', message: 'This is no picture.' }]);
  await next.giveUp('p2');
  expect(next.read().refusals).toEqual([]);
  expect(photos.size).toBe(0);
});

test('a picture that hangs, or that the server fails at, holds back neither entries nor other pictures', async () => {
  const store = await opened();
  server.hangs.add('p1');
  await store.keepPicture('p1', new Blob(['x']));
  store.record(note('12.4 V at the fuse'));
  await settle();
  store.record(note('0.1 V behind it'));
  await settle();
  expect(server.stored).toHaveLength(2);
  expect(store.read().events.map((event) => event.seq)).toEqual([1, 2]);
  // The picture is said to be on its way, and the server not to be away.
  expect(store.read().sending).toEqual({ kind: 'sending', count: 1 });
  expect([...store.read().pictures.keys()]).toEqual(['p1']);
  stop();
  server.hangs.clear();
  server.fails.add('p1');
  const next = await opened();
  await next.keepPicture('p2', new Blob(['y']));
  next.record(note('relay out'));
  await settle();
  expect(server.stored).toHaveLength(3);
  expect([...photos.keys()]).toEqual(['p1']);
  expect(next.read().sending).toEqual({ kind: 'waiting', count: 1 });
});

test('a browser store that never answers keeps no entry from being sent, and no picture', async () => {
  storage = 'silent';
  const store = page();
  store.record(note('one'));
  expect(store.read().events).toHaveLength(1);
  const keeping = store.keepPicture('p1', new Blob(['x']));
  const end = Date.now() + 20_000;
  while (
    Date.now() < end &&
    !(server.stored.length === 1 && server.asked.some((url) => url.includes('photos')))
  ) {
    await settle();
  }
  await keeping;
  expect(server.stored).toHaveLength(1);
  store.record(note('two'));
  while (Date.now() < end && server.stored.length < 2) await settle();
  expect(server.stored).toHaveLength(2);
  while (Date.now() < end && store.read().sending.kind !== 'idle') await settle();
  expect(store.read().sending).toEqual({ kind: 'idle' });
});

test('an entry that the server will never take keeps no other back, stays with its reason, and goes by name only', async () => {
  const store = await opened();
  store.record(note('one'), note('garbled'), note('three'));
  await settle();
  store.record(note('four'));
  await settle();
  expect(store.read().events.map((event) => event.seq)).toEqual([1, 2, 3, null]);
  expect(store.read().sending).toEqual({ kind: 'idle' });
  const [refusal] = store.read().refusals;
  expect(refusal).toMatchObject({
    message: 'An entry cannot be read.',
    what: { entry: { body: note('garbled') } },
  });
  expect([...kept.values()].map(({ body, refused }) => [body, refused])).toEqual([
    [note('garbled'), 'An entry cannot be read.'],
  ]);
  const asked = server.asked.length;
  store.record(note('five'));
  await settle();
  // It is not asked again by itself during this visit.
  expect(server.asked.length).toBe(asked + 1);
  await store.giveUp(refusal!.id);
  expect(store.read().refusals).toEqual([]);
  expect(store.read().events.map((event) => event.body)).toEqual(
    ['one', 'three', 'four', 'five'].map((words) => note(words)),
  );
  expect(kept.size).toBe(0);
});

test('an entry that could never be kept is not made, and nothing with it', async () => {
  const store = await opened();
  const recorded = store.record(note('fine'), note('x'.repeat(2001)));
  expect(recorded).toEqual({
    ok: false,
    message: 'words: Must have at most 2000 characters.',
    field: 'words',
  });
  expect(store.record(note('fan\u0000')).ok).toBe(false);
  await settle();
  expect(store.read().events).toEqual([]);
  expect(kept.size).toBe(0);
  expect(server.asked).toEqual([]);
});

test('much that waits is sent in batches that the server takes', async () => {
  const store = await opened();
  server.answer = 'away';
  store.record(...Array.from({ length: 300 }, () => note('x'.repeat(2000))));
  await settle();
  server.answer = 'yes';
  window.dispatchEvent(new Event('online'));
  await settle();
  await settle();
  expect(server.stored).toHaveLength(300);
  expect(Math.max(...server.sizes)).toBeLessThan(BATCH_LIMIT_BYTES / 2);
});

test('what others record is seen within five seconds, without a reload', async () => {
  jest.useFakeTimers();
  try {
    const store = page();
    await jest.advanceTimersByTimeAsync(100);
    server.others = [
      {
        id: 'theirs',
        seq: 1,
        person: 'Tess Wray',
        madeAt: new Date(0).toISOString(),
        clientOrder: 0,
        body: note('theirs'),
      },
    ];
    await jest.advanceTimersByTimeAsync(5000);
    expect(store.read().events.map((event) => event.id)).toEqual(['theirs']);
  } finally {
    stop();
    stop = () => {};
    jest.useRealTimers();
  }
});

test('what it was told of and could not get is asked for again, though news come by themselves', async () => {
  jest.useFakeTimers();
  try {
    const store = page();
    store.toldBy(() => true);
    await jest.advanceTimersByTimeAsync(100);
    const at = { person: 'Tess Wray', madeAt: new Date(0).toISOString(), clientOrder: 0 };
    server.others = [{ id: 'theirs', seq: 1, ...at, body: note('theirs') }];
    server.answer = 'away';
    await store.catchUp();
    server.answer = 'yes';
    await jest.advanceTimersByTimeAsync(5000);
    expect(store.read().events.map((event) => event.id)).toEqual(['theirs']);
  } finally {
    stop();
    stop = () => {};
    jest.useRealTimers();
  }
});

test('what the server has is taken in once, and handed on to be held', async () => {
  const held: LogEvent[] = [];
  const store = new JobStore(JOB, [], new Sender(), (events) => held.push(...events));
  const mine = {
    id: 'mine',
    seq: 1,
    person: 'Imre Pellow',
    madeAt: new Date(0).toISOString(),
    clientOrder: 0,
  };
  const [first, other] = [
    { ...mine, body: note('mine') },
    { ...mine, id: 'theirs', seq: 2, person: 'Tess Wray', body: note('theirs') },
  ];
  store.takeIn([first]);
  store.takeIn([first, other]);
  expect(store.read().events).toEqual([first, other]);
  const before = store.read();
  store.takeIn([first, other]);
  expect(store.read()).toBe(before);
  expect(held).toEqual([first, other]);
});

test('what waits of a job is sent from any page, and a job of which the server takes nothing keeps no other back', async () => {
  const elsewhere = await opened();
  server.answer = 'away';
  elsewhere.record(note('written offline'));
  await settle();
  stop();
  // Another page, of no job at all: the sender runs there too.
  server.answer = 'yes';
  const outgoing = new Sender();
  stop = outgoing.start();
  await settle();
  expect(server.stored).toHaveLength(1);
  expect(kept.size).toBe(0);
  expect([...outgoing.standing()]).toEqual([]);
  server.answer = 'no';
  const event = { ...elsewhere.read().events[0]!, id: crypto.randomUUID(), jobId: OTHER_JOB };
  outgoing.add([event]);
  await settle();
  expect([...outgoing.standing()]).toEqual([[OTHER_JOB, 1]]);
  server.answer = 'yes';
  outgoing.add([{ ...event, id: crypto.randomUUID(), jobId: JOB }]);
  await settle();
  expect(server.stored).toHaveLength(2);
  expect([...outgoing.standing()]).toEqual([[OTHER_JOB, 1]]);
});

test('what the server has confirmed to another page counts as recorded here', async () => {
  const store = await opened();
  server.answer = 'away';
  store.record(note('one'));
  await settle();
  const [event] = store.read().events;
  store.takeIn([{ ...event!, seq: 7 }]);
  expect(store.read().events).toEqual([{ ...event!, seq: 7 }]);
});

test('what was still on its way while the page was made, and what others record, is caught up with', async () => {
  const event = (seq: number): LogEvent => ({
    id: `e${seq}`,
    seq,
    person: 'Tess Wray',
    madeAt: new Date(0).toISOString(),
    clientOrder: seq,
    body: note(`entry ${seq}`),
  });
  server.others = [event(1), event(2)];
  const store = page([event(1)]);
  await settle();
  expect(store.read().events.map((one) => one.id)).toEqual(['e1', 'e2']);
  // A gap is asked for from where it begins, and a page that was hidden looks again when it is seen.
  server.others = [event(1), event(2), event(3), event(4)];
  store.takeIn([event(4)]);
  document.dispatchEvent(new Event('visibilitychange'));
  await settle();
  expect(
    store
      .read()
      .events.map((one) => one.id)
      .sort(),
  ).toEqual(['e1', 'e2', 'e3', 'e4']);
});

test('what is confirmed while the page is being left waits in the browser for the next page', async () => {
  const store = await opened();
  server.slow = true;
  store.record(note('at the door'));
  await settle();
  window.dispatchEvent(new Event('beforeunload'));
  server.go();
  await settle();
  expect(store.read().sending).toEqual({ kind: 'idle' });
  expect(kept.size).toBe(1);
  stop();
  // The next page was made before the server had it.
  server.slow = false;
  const next = await opened();
  expect(next.read().events.map((event) => [event.seq, event.body])).toEqual([[1, note('at the door')]]);
  expect(kept.size).toBe(0);
});

test('what the page was made with is not kept a second time in the browser', async () => {
  const store = await opened();
  server.slow = true;
  store.record(note('on the way out'));
  await settle();
  window.dispatchEvent(new Event('beforeunload'));
  server.go();
  await settle();
  stop();
  expect(kept.size).toBe(1);
  // The next page was made after the server had it.
  server.slow = false;
  const next = page(store.read().events);
  await settle();
  expect(kept.size).toBe(0);
  expect(next.read().events).toHaveLength(1);
});

test('nothing is said to wait once somebody else has brought it there', async () => {
  const store = await opened();
  server.answer = 'away';
  store.record(note('one'));
  await settle();
  expect(store.read().sending).toEqual({ kind: 'waiting', count: 1 });
  store.takeIn([{ ...store.read().events[0]!, seq: 1 }]);
  expect(store.read().sending).toEqual({ kind: 'idle' });
});
