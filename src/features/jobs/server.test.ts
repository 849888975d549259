/** The log in a real database: sequences, repeats, refusals, and summaries that can be rebuilt. */
import { randomUUID } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import { checkPanelSet } from '#core/format/checkPanelSet';
import type { CircuitFile } from '#core/format/circuitSchema';
import validateJobFile from '#core/format/generated/jobFile';
import type { EventBody, JobEvent } from '#core/format/jobSchema';
import { validateWith } from '#core/format/problem';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { circuitVersions, findings, jobEvents, jobSummaries, jobs } from '@/db/schema';
import { learning, resetLearning } from '@/features/shop/server';
import { importFile, listVehicles, loadVehicle } from '@/features/vehicles/server';
import { demoText } from '../../../testing/circuits';
import { demoActor, stranger, withDatabase } from '../../../testing/database';
import {
  appendEvents,
  eventsAfter,
  jobFile,
  learnOnJob,
  listJobs,
  loadJob,
  openJob,
  summarise,
} from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

function note(jobId: string, words: string, clientOrder = 0): JobEvent {
  return {
    id: randomUUID(),
    jobId,
    madeAt: new Date().toISOString(),
    clientOrder,
    body: { kind: 'note', words },
  };
}

async function freshJob(): Promise<string> {
  const actor = await demoActor();
  const [vehicle] = await listVehicles(actor);
  const id = randomUUID();
  expect(await openJob(actor, { id, vehicleId: vehicle!.id, title: 'Step lamp dead' })).toEqual({ ok: true });
  return id;
}

/** A file brought in, each time as a request of its own. */
const bring = (actor: Actor, vehicleId: string, text: string, base?: number) =>
  importFile(actor, vehicleId, { id: randomUUID(), text, ...(base === undefined ? {} : { base }) });

const eventsIn = (jobId: string) =>
  database().select().from(jobEvents).where(eq(jobEvents.jobId, jobId)).orderBy(asc(jobEvents.seq));

test('the demo holds jobs in several states, and history enough to learn from', async () => {
  const stages = (await database().select().from(jobSummaries)).map((row) => row.stage);
  expect(new Set(stages)).toEqual(new Set(['closed', 'complaint', 'testing']));
  expect(stages.filter((stage) => stage === 'closed').length).toBeGreaterThanOrEqual(10);
});

test('a batch sent twice, whole or in part, changes nothing the second time', async () => {
  const actor = await demoActor();
  const jobId = await freshJob();
  const events = [note(jobId, 'one', 1), note(jobId, 'two', 2)];
  const first = await appendEvents(actor, events);
  const again = await appendEvents(actor, [events[1]!, note(jobId, 'three', 3), events[1]!]);
  expect(first).toMatchObject({ ok: true, stored: [{ seq: 1 }, { seq: 2 }] });
  expect(again).toMatchObject({ ok: true, stored: [{ seq: 2 }, { seq: 3 }, { seq: 2 }] });
  expect((await eventsIn(jobId)).map((row) => (row.body as { words?: string }).words)).toEqual([
    'one',
    'two',
    'three',
  ]);
});

test('two people writing at once both keep their entries, in one gapless sequence', async () => {
  const actor = await demoActor();
  const jobId = await freshJob();
  await Promise.all(
    Array.from({ length: 12 }, (_, n) =>
      appendEvents(actor, [note(jobId, `entry ${n}`, n), note(jobId, `more ${n}`, n + 100)]),
    ),
  );
  expect((await eventsIn(jobId)).map((row) => row.seq)).toEqual(Array.from({ length: 24 }, (_, n) => n + 1));
});

test('a batch with one event for a job of nobody writes nothing at all', async () => {
  const actor = await demoActor();
  const jobId = await freshJob();
  const result = await appendEvents(actor, [note(jobId, 'kept out'), note(randomUUID(), 'nowhere')]);
  expect(result).toMatchObject({ ok: false, code: 'unknown-job' });
  expect(await eventsIn(jobId)).toEqual([]);
});

test('a page that holds a part of the log is given the rest, in order, and another shop nothing', async () => {
  const actor = await demoActor();
  const jobId = await freshJob();
  await appendEvents(
    actor,
    ['one', 'two', 'three'].map((words, n) => note(jobId, words, n)),
  );
  const seqs = async (after: number) => (await eventsAfter(actor, jobId, after))!.map((event) => event.seq);
  expect(await seqs(0)).toEqual([1, 2, 3]);
  expect(await seqs(2)).toEqual([3]);
  expect(await seqs(3)).toEqual([]);
  expect(await eventsAfter({ ...actor, shopId: randomUUID() }, jobId, 0)).toBeNull();
});

test('an id that belongs to another job is refused', async () => {
  const actor = await demoActor();
  const [one, other] = [await freshJob(), await freshJob()];
  const event = note(one, 'mine');
  await appendEvents(actor, [event]);
  expect(await appendEvents(actor, [{ ...event, jobId: other }])).toMatchObject({
    ok: false,
    code: 'id-taken',
  });
});

test('another shop sees nothing and can write nothing', async () => {
  const actor = await demoActor();
  const stranger = { ...actor, shopId: randomUUID() };
  const jobId = await freshJob();
  expect(await loadJob(stranger, jobId)).toBeNull();
  expect(await listJobs(stranger, 'open')).toEqual([]);
  expect(await appendEvents(stranger, [note(jobId, 'not yours')])).toMatchObject({
    ok: false,
    code: 'unknown-job',
  });
});

test('the database itself refuses to change or delete an event', async () => {
  const db = database();
  const refusal = { cause: { message: expect.stringContaining('append-only') } };
  await expect(db.update(jobEvents).set({ seq: 99 })).rejects.toMatchObject(refusal);
  await expect(db.delete(jobEvents)).rejects.toMatchObject(refusal);
  await expect(db.execute('truncate job_events cascade')).rejects.toMatchObject(refusal);
});

test('every summary row equals the one rebuilt from its log', async () => {
  const actor = await demoActor();
  const rows = await database().select().from(jobSummaries).innerJoin(jobs, eq(jobs.id, jobSummaries.jobId));
  expect(rows.length).toBeGreaterThan(3);
  for (const row of rows) {
    const job = await loadJob(actor, row.jobs.id);
    const { jobId: _id, shopId: _shop, progress: _progress, lastAt, ...stored } = row.job_summaries;
    const { lastAt: rebuiltAt, ...rebuilt } = summarise(job!.events, job!.openedAt);
    expect(rebuilt).toEqual(stored);
    expect(new Date(rebuiltAt).getTime()).toBe(new Date(lastAt).getTime());
  }
});

test('an exported job is a valid job file with every event in it', async () => {
  const actor = await demoActor();
  const [open] = await listJobs(actor, 'open');
  const file = jobFile((await loadJob(actor, open!.id))!);
  expect(validateWith(validateJobFile, JSON.parse(JSON.stringify(file)))).toMatchObject({ ok: true });
});

describe('imports', () => {
  const van = async () => {
    const actor = await demoActor();
    const vehicle = (await listVehicles(actor)).find((one) => one.name === 'Bakery van')!;
    return { actor, vehicle };
  };

  test('what is exported is what was brought in, key for key', async () => {
    const { actor, vehicle } = await van();
    const maps = await loadVehicle(actor, vehicle.id);
    for (const circuit of maps!.circuits) {
      expect(JSON.stringify(circuit.file)).toBe(
        JSON.stringify(JSON.parse(demoText(`${circuit.file.id}.circuit.json`))),
      );
    }
    expect(checkPanelSet(maps!.panelSet!.file).ok).toBe(true);
  });

  test('a new version leaves an old job on the version it was traced on', async () => {
    const { actor, vehicle } = await van();
    const job = (await listJobs(actor, 'open')).find((one) => one.title.startsWith('Proving'))!;
    const before = await loadJob(actor, job.id);
    const text = demoText('van-hatch-fridge.circuit.json').replace(
      'Serving hatch and drinks fridge',
      'Hatch and fridge',
    );
    expect(await bring(actor, vehicle.id, text)).toMatchObject({
      ok: true,
      sentence: expect.stringContaining('version 2'),
    });
    expect((await loadJob(actor, job.id))!.circuits).toEqual(before!.circuits);
    expect((await loadVehicle(actor, vehicle.id))!.circuits.map((one) => one.file.name)).toContain(
      'Hatch and fridge',
    );
  });

  test('what was edited from an older version is refused, and nothing is overwritten', async () => {
    const actor = await demoActor();
    const [vehicle] = await listVehicles(actor);
    const maps = (await loadVehicle(actor, vehicle!.id))!;
    const { file, version } = maps.circuits[0]!;
    const text = (name: string) => JSON.stringify({ ...file, name });
    const mine = await bring(actor, vehicle!.id, text('Mine'), version);
    expect(mine).toMatchObject({ ok: true, version: version + 1 });
    const late = await bring(actor, vehicle!.id, text('Late'), version);
    expect(late).toMatchObject({ ok: false, problems: [{ code: 'changed-meanwhile' }] });
    // A new one that would fall upon an old one of the same id is late as well.
    expect(await bring(actor, vehicle!.id, text('New'), 0)).toMatchObject({ ok: false });
    const now = (await loadVehicle(actor, vehicle!.id))!.circuits.find((one) => one.file.id === file.id);
    expect(now).toMatchObject({ version: version + 1, name: 'Mine' });
    // A file that somebody brings is meant to replace.
    expect(await bring(actor, vehicle!.id, JSON.stringify(file))).toMatchObject({ ok: true });
  });
  test('a file with a problem, or one that disagrees with its neighbours, changes nothing', async () => {
    const { actor, vehicle } = await van();
    const count = async () =>
      (await database().select({ id: circuitVersions.id }).from(circuitVersions)).length;
    const before = await count();
    const bad = demoText('van-hatch-fridge.circuit.json')
      .replaceAll('"f34-out"', '"f34-lost"')
      .replace('"id": "f34-lost"', '"id": "f34-out"');
    expect(await bring(actor, vehicle.id, bad)).toMatchObject({ ok: false });
    const other = demoText('van-hatch-fridge.circuit.json').replace('"ratingAmps": 60', '"ratingAmps": 50');
    expect(await bring(actor, vehicle.id, other)).toMatchObject({
      ok: false,
      problems: [{ code: 'merge-conflict', message: expect.stringContaining('MF2') }],
    });
    expect(await bring(actor, vehicle.id, '{ "noise"')).toMatchObject({
      ok: false,
      problems: [{ code: 'not-json' }],
    });
    // What is no object is read as text, and its first mistake is named where it stands.
    expect(await bring(actor, vehicle.id, 'noise')).toMatchObject({
      ok: false,
      problems: [{ code: 'notation', path: 'line 1, column 1' }],
    });
    expect(await count()).toBe(before);
  });
});

test('the log of a demo body round-trips as it was written', async () => {
  const actor = await demoActor();
  const jobId = await freshJob();
  const body: EventBody = {
    kind: 'reading',
    test: { kind: 'volts', node: 'a', against: 'b', condition: 'c' },
    value: { volts: 0.0055 },
    raw: '5,5 mV',
    testerProved: true,
  };
  await appendEvents(actor, [{ ...note(jobId, ''), body }]);
  expect((await loadJob(actor, jobId))!.events[0]!.body).toEqual(body);
});

test('a proved job counts towards the shop’s own weights until they are started anew', async () => {
  const actor = await demoActor();
  const before = await learning(actor);
  // Every finding of the demo that stands as proved, once.
  const proved = (await database().select().from(findings)).filter(({ strength }) => strength === 'proved');
  expect(proved.length).toBeGreaterThanOrEqual(8);
  expect(before.jobs).toBe(proved.length);
  const wires = proved.filter(({ partKind, mode }) => partKind === 'wire' && mode === 'open').length;
  expect(before.weights).toContainEqual(
    expect.objectContaining({ kind: 'wire', mode: 'open', count: wires }),
  );
  const id = randomUUID();
  await resetLearning(actor, id);
  await resetLearning(actor, id);
  const after = await learning(actor);
  expect(after.jobs).toBe(0);
  expect(after.reset?.by).toBe(actor.personName);
});

describe('what is learned of a part on the way', () => {
  /** A wire of the demo that stands in a circuit of the vehicle that jobs are opened on. */
  async function traced() {
    const actor = await demoActor();
    const jobId = await freshJob();
    const { circuits: held, vehicle } = (await loadJob(actor, jobId))!;
    const file = held.find((one) => one.parts.some((part) => part.kind === 'wire'))!;
    const wire = file.parts.find((part) => part.kind === 'wire')!;
    /** The wire as a job sees it. */
    const seen = async (id: string) =>
      (await loadJob(actor, id))!.circuits.flatMap((one) => one.parts).find((part) => part.id === wire.id);
    return { actor, jobId, vehicle, file, wire, seen };
  }

  test('is seen by this job and by later ones, and by no job that was there before', async () => {
    const { actor, jobId, wire, seen } = await traced();
    const earlier = await freshJob();
    const before = await seen(earlier);
    const fact = {
      id: randomUUID(),
      part: wire.id,
      fields: { endA: 'behind the kick panel', joints: ['solder joint at the sill'] },
    };
    expect(await learnOnJob(actor, jobId, fact)).toEqual({ ok: true, stays: null });
    expect(await seen(jobId)).toMatchObject(fact.fields);
    expect(await seen(await freshJob())).toMatchObject(fact.fields);
    expect(await seen(earlier)).toEqual(before);
  });

  test('can be taken back to unknown', async () => {
    const { actor, jobId, wire, seen } = await traced();
    await learnOnJob(actor, jobId, {
      id: randomUUID(),
      part: wire.id,
      fields: { sizeMm2: 2.5, endB: 'in the tail' },
    });
    await learnOnJob(actor, jobId, {
      id: randomUUID(),
      part: wire.id,
      fields: { sizeMm2: null, endB: null },
    });
    expect(await seen(jobId)).not.toHaveProperty('sizeMm2');
    expect(await seen(jobId)).not.toHaveProperty('endB');
  });

  test('is refused in words where it is no fact, and then nothing is written', async () => {
    const { actor, jobId, wire, seen } = await traced();
    const before = await seen(jobId);
    const count = async () => (await database().select().from(circuitVersions)).length;
    const versions = await count();
    for (const [part, fields, words] of [
      [wire.id, { pins: {} }, /“pins” is not learned here/],
      [wire.id, { name: null }, /name/],
      [wire.id, { sizeMm2: -1 }, /sizeMm2|above 0|greater/],
      ['no-such-part', { name: 'x' }, /No circuit here has a part no-such-part/],
    ] as const) {
      const result = await learnOnJob(actor, jobId, { id: randomUUID(), part, fields });
      expect(result).toMatchObject({ ok: false, message: expect.stringMatching(words) });
    }
    expect(
      await learnOnJob(await stranger(), jobId, {
        id: randomUUID(),
        part: wire.id,
        fields: { name: 'x' },
      }),
    ).toMatchObject({ ok: false });
    expect(await seen(jobId)).toEqual(before);
    expect(await count()).toBe(versions);
  });

  test('leaves a job on its map where the newest has lost a part of it', async () => {
    const { actor, jobId, vehicle, file, wire, seen } = await traced();
    const before = await seen(jobId);
    const spare = {
      id: 'spare-wire',
      name: 'Spare wire',
      kind: 'wire',
      pins: wire.pins,
    } as CircuitFile['parts'][number];
    const text = (parts: CircuitFile['parts']) => JSON.stringify({ ...file, parts });
    expect(await bring(actor, vehicle.id, text([...file.parts, spare]))).toMatchObject({ ok: true });
    const withSpare = await freshJob();
    expect(await bring(actor, vehicle.id, text(file.parts))).toMatchObject({ ok: true });
    const fact = { id: randomUUID(), part: wire.id, fields: { colour: 'PK/GN' } };
    const answer = await learnOnJob(actor, withSpare, fact);
    expect(answer).toMatchObject({
      ok: true,
      stays: expect.stringContaining('“spare-wire” has been taken out'),
    });
    expect(await seen(withSpare)).not.toMatchObject(fact.fields);
    expect(await seen(await freshJob())).toMatchObject(fact.fields);
    expect(await seen(jobId)).toEqual(before);
  });

  test('by two people at once is all kept', async () => {
    const { actor, jobId, wire, seen } = await traced();
    const other = await freshJob();
    await Promise.all([
      learnOnJob(actor, jobId, { id: randomUUID(), part: wire.id, fields: { endA: 'one end' } }),
      learnOnJob(actor, other, { id: randomUUID(), part: wire.id, fields: { endB: 'other end' } }),
    ]);
    expect(await seen(await freshJob())).toMatchObject({ endA: 'one end', endB: 'other end' });
  });
});
