/** The rows that lists read, against what the log says: small steps and a making anew give the same. */
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import fc from 'fast-check';
import pg from 'pg';
import type { EventBody, JobEvent } from '#core/format/jobSchema';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { jobSummaries, jobs } from '@/db/schema';
import { appendEvents, loadJob, openJob, slotHistory } from '@/features/jobs/server';
import { learning } from '@/features/shop/server';
import { listVehicles } from '@/features/vehicles/server';
import { demoActor, withDatabase } from '../../../testing/database';
import { expectedRows, keptRows } from '../../../testing/rowsOfLog';
import { rebuildProjections } from '.';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

let actor: Actor;
let vehicleId: string;
beforeAll(async () => {
  actor = await demoActor();
  vehicleId = (await listVehicles(actor)).find((one) => one.name === 'Harbour launch')!.id;
});

async function freshJob(): Promise<string> {
  const id = randomUUID();
  await openJob(actor, { id, vehicleId, title: 'Bilge blower weak' });
  return id;
}

const proof = (state: 'works' | 'dead', of = 'blower'): EventBody => ({
  kind: 'proof',
  function: of,
  condition: 'on',
  state,
  expected: 'works',
});
const found = (fault: string, mode = 'open', strength: 'proved' | 'supported' = 'proved'): EventBody => ({
  kind: 'found',
  parts: ['C1'],
  fault,
  form: { part: 'C1', kind: 'connector', mode },
  strength,
  cause: 'unknown',
  causeWords: '',
  evidence: [],
});
const reading: EventBody = {
  kind: 'reading',
  test: { kind: 'lamp', node: 'a', condition: 'on' },
  value: { lamp: 'lit' },
  raw: 'lit',
  testerProved: true,
};

/** Bodies of every kind that a row takes something of, and one that none does. */
const body = fc.constantFrom<EventBody>(
  { kind: 'complaint', words: 'Blower weak', function: 'blower', condition: 'on', state: 'weak' },
  { kind: 'complaint', words: 'It hums' },
  reading,
  reading,
  found('Plug corroded'),
  found('Joint loose', 'high-resistance', 'supported'),
  { kind: 'repair', words: 'Cleaned', partsUsed: [], temporary: false },
  { kind: 'repair', words: 'Next size in', partsUsed: [], temporary: true, due: '2026-12-01' },
  proof('works'),
  proof('dead'),
  proof('works', 'lamp'),
  { kind: 'watch', words: 'Dry?', due: '2026-12-24' },
  { kind: 'slot-state', panel: 'p', slot: 's', state: 'empty', evidence: 'seen' },
  { kind: 'swapped', one: 'R1', other: 'R2', functions: ['blower'] },
  { kind: 'appliance-set-aside', words: 'cool box' },
  { kind: 'complaint', words: 'Read the box', work: 'survey' },
  { kind: 'state', state: 'closed' },
  { kind: 'state', state: 'closed', override: 'owner in a hurry' },
  { kind: 'state', state: 'closed', ending: 'made-safe', override: 'lead off' },
  { kind: 'handed-over', to: 'Somebody', words: '' },
  { kind: 'state', state: 'open' },
  { kind: 'note', words: 'x' },
);
/** A body, or the striking of an entry so many before it, or the ending of a watch item. */
const act = fc.oneof(
  { weight: 5, arbitrary: body.map((one) => ({ body: one })) },
  { weight: 2, arbitrary: fc.integer({ min: 1, max: 6 }).map((back) => ({ strike: back })) },
  { weight: 1, arbitrary: fc.integer({ min: 1, max: 6 }).map((back) => ({ end: back })) },
  {
    weight: 4,
    arbitrary: fc
      .record({
        back: fc.integer({ min: 1, max: 6 }),
        by: fc.constantFrom('restore', 'release', 'decide', 'right', 'later'),
      })
      .map(({ back, by }) => ({ ends: back, by })),
  },
);

/** Entries that end something that an earlier one began, or put it off. */
const ending = (of: string): Readonly<Record<string, EventBody>> => ({
  restore: { kind: 'swap-restored', of },
  release: { kind: 'appliance-released', of, words: 'sound' },
  decide: { kind: 'temporary-ended', of, words: 'stays', decidedBy: 'the owner' },
  right: { kind: 'repair', words: 'Right one in', partsUsed: [], temporary: false, ends: [of] },
  later: { kind: 'watch-snoozed', of, due: '2026-12-31', words: 'no time' },
});

test('whatever is entered, struck and ended, entry by entry or in batches, the rows are what the log says', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(act, { minLength: 1, maxLength: 14 }),
      fc.integer({ min: 1, max: 4 }),
      async (acts, batch) => {
        const jobId = await freshJob();
        const made: JobEvent[] = [];
        for (const [order, one] of acts.entries()) {
          const before = (back: number) => made.at(-back)?.id ?? randomUUID();
          const entry: EventBody =
            'body' in one
              ? one.body
              : 'strike' in one
                ? { kind: 'correction', of: before(one.strike) }
                : 'ends' in one
                  ? ending(before(one.ends))[one.by]!
                  : { kind: 'watch-done', of: before(one.end), words: 'dry' };
          made.push({
            id: randomUUID(),
            jobId,
            madeAt: new Date(1_790_000_000_000 + order * 1000).toISOString(),
            clientOrder: order,
            body: entry,
          });
        }
        for (let at = 0; at < made.length; at += batch) {
          expect(await appendEvents(actor, made.slice(at, at + batch))).toMatchObject({ ok: true });
        }
        expect(await keptRows(jobId)).toEqual(await expectedRows(jobId));
      },
    ),
    { numRuns: 40 },
  );
}, 60_000);

test('a clock that runs in another century puts the job where the server had its entry', async () => {
  const jobId = await freshJob();
  for (const [clientOrder, madeAt] of ['1970-01-01T00:02:00.000Z', '2090-05-05T05:05:00.000Z'].entries()) {
    const before = Date.now();
    const entry = { kind: 'watch', words: 'Dry?', due: '2026-12-24' } as const;
    const made = { id: randomUUID(), jobId, version: 1, madeAt, clientOrder, body: entry };
    expect(await appendEvents(actor, [made])).toMatchObject({ ok: true });
    const [row] = await database().select().from(jobSummaries).where(eq(jobSummaries.jobId, jobId));
    const at = Date.parse(row!.lastAt);
    expect(at).toBeGreaterThan(before - 60_000);
    expect(at).toBeLessThan(Date.now() + 60_000);
    const [kept] = (await loadJob(actor, jobId))!.events.slice(-1);
    expect([kept!.madeAt, Math.abs(Date.parse(kept!.arrivedAt) - at) < 1000]).toEqual([madeAt, true]);
  }
});

test('a correction that comes before what it strikes strikes it all the same', async () => {
  const jobId = await freshJob();
  const late = randomUUID();
  const event = (id: string, clientOrder: number, entry: EventBody): JobEvent => ({
    id,
    jobId,
    madeAt: new Date().toISOString(),
    clientOrder,
    body: entry,
  });
  await appendEvents(actor, [event(randomUUID(), 0, { kind: 'correction', of: late })]);
  await appendEvents(actor, [event(late, 1, reading)]);
  expect((await keptRows(jobId)).summary.readings).toBe(0);
  expect(await keptRows(jobId)).toEqual(await expectedRows(jobId));
});

test('all rows made anew are the rows that were kept', async () => {
  const every = await database().select({ id: jobs.id }).from(jobs);
  const before = new Map<string, unknown>();
  for (const { id } of every) before.set(id, await keptRows(id));
  expect(await rebuildProjections()).toBe(every.length);
  for (const { id } of every) expect(await keptRows(id)).toEqual(before.get(id));
}, 30_000);

test('an entry is added without reading the log: its cost in rows does not grow with the job', async () => {
  const jobId = await freshJob();
  const note = (clientOrder: number): JobEvent => ({
    id: randomUUID(),
    jobId,
    madeAt: new Date().toISOString(),
    clientOrder,
    body: { kind: 'note', words: 'x' },
  });
  /** Rows that one append takes from the database. */
  const rowsRead = async () => {
    let rows = 0;
    const query = pg.Client.prototype.query as (...args: unknown[]) => unknown;
    const spy = jest.spyOn(pg.Client.prototype, 'query').mockImplementation(function (
      this: pg.Client,
      ...args: unknown[]
    ) {
      const asked = query.apply(this, args);
      const count = (answer: pg.QueryResult) => {
        rows += answer.rows?.length ?? 0;
      };
      if (asked instanceof Promise) void asked.then(count);
      return asked as never;
    });
    try {
      await appendEvents(actor, [note(9999)]);
    } finally {
      spy.mockRestore();
    }
    return rows;
  };
  await appendEvents(
    actor,
    Array.from({ length: 10 }, (_, n) => note(n)),
  );
  const few = await rowsRead();
  for (let at = 0; at < 2000; at += 500)
    await appendEvents(
      actor,
      Array.from({ length: 500 }, (_, n) => note(at + n)),
    );
  const many = await rowsRead();
  console.log(`rows taken by an append: ${few} in a job of 10 entries, ${many} in one of 2,000`);
  expect(few).toBeGreaterThan(0);
  expect(many).toBe(few);
}, 30_000);

test('weights and the history of slots come from rows: the last thing found counts once, when it was proved', async () => {
  const count = async () =>
    (await learning(actor)).weights.find((one) => one.kind === 'connector' && one.mode === 'high-resistance')!
      .count;
  const before = await count();
  const jobId = await freshJob();
  const event = (clientOrder: number, entry: EventBody): JobEvent => ({
    id: randomUUID(),
    jobId,
    madeAt: new Date().toISOString(),
    clientOrder,
    body: entry,
  });
  await appendEvents(actor, [
    event(1, found('Plug open')),
    event(2, found('Plug corroded', 'high-resistance')),
  ]);
  expect(await count()).toBe(before + 1);
  const doubt = event(3, found('Perhaps the plug', 'high-resistance', 'supported'));
  await appendEvents(actor, [doubt]);
  expect(await count()).toBe(before);
  await appendEvents(actor, [event(4, { kind: 'correction', of: doubt.id })]);
  expect(await count()).toBe(before + 1);
  const seen = event(5, {
    kind: 'slot-state',
    panel: 'bow',
    slot: 'fuse-3',
    state: 'spare',
    evidence: 'lid',
  });
  await appendEvents(actor, [seen]);
  expect((await slotHistory(actor, vehicleId)).filter((one) => one.id === seen.id)).toMatchObject([
    { state: 'spare', person: actor.personName },
  ]);
  await appendEvents(actor, [event(6, { kind: 'correction', of: seen.id })]);
  expect((await slotHistory(actor, vehicleId)).filter((one) => one.id === seen.id)).toEqual([]);
});
