/** What is asked for more than once, by several at a time, or half: made once, as a whole, or not at all. */
import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { and, count, eq } from 'drizzle-orm';
import sharp from 'sharp';
import type { JobEvent } from '#core/format/jobSchema';
import type { PanelSetFile, Slot } from '#core/format/panelSchema';
import type { NewJob } from '#core/format/requestSchemas';
import { CircuitModel } from '#core/network';
import { database } from '@/db/client';
import {
  circuitVersions,
  jobCircuits,
  jobEvents,
  jobs,
  panelSetVersions,
  people,
  shops,
  vehicles,
} from '@/db/schema';
import { bringDemo } from '@/features/demo/server';
import {
  addVehicleAlone,
  importFile,
  learnFact,
  listVehicles,
  loadVehicle,
} from '@/features/vehicles/server';
import { demoText } from '../../../testing/circuits';
import { colleague, demoActor, migrate, stranger, withDatabase } from '../../../testing/database';
import { appendEvents, beginJob, keepPhoto, listJobs, loadJob, openJob } from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

const newJob = (more: Partial<NewJob> = {}): NewJob => ({
  id: randomUUID(),
  title: 'Tank heater dead, pump runs',
  vehicleId: randomUUID(),
  vehicleName: 'White tipper',
  plate: randomUUID().slice(0, 8),
  nominalVolts: 12,
  pattern: 'fuse-relay-load',
  kind: 'heater',
  state: 'dead',
  ...more,
});

async function rowsOf(table: typeof vehicles | typeof jobs | typeof circuitVersions): Promise<number> {
  const [row] = await database().select({ of: count() }).from(table);
  return row!.of;
}

async function freshJob(): Promise<string> {
  const actor = await demoActor();
  const [vehicle] = await listVehicles(actor);
  const id = randomUUID();
  await openJob(actor, { id, vehicleId: vehicle!.id, title: 'Step lamp dead' });
  return id;
}

function note(jobId: string, words: string, clientOrder = 0): JobEvent {
  return {
    id: randomUUID(),
    jobId,
    madeAt: new Date().toISOString(),
    clientOrder,
    body: { kind: 'note', words },
  };
}

describe('opening a job', () => {
  test('eight equal requests at once make one job with one circuit and one complaint, and all say so', async () => {
    const actor = await demoActor();
    const input = newJob();
    const answers = await Promise.all(Array.from({ length: 8 }, () => beginJob(actor, input)));
    expect(answers).toEqual(Array.from({ length: 8 }, () => ({ ok: true, id: input.id, traced: true })));
    const job = (await loadJob(actor, input.id))!;
    expect(job.circuits).toHaveLength(1);
    expect(job.events.map((event) => event.body)).toMatchObject([{ kind: 'complaint', words: input.title }]);
    expect((await loadVehicle(actor, input.vehicleId))!.circuits).toHaveLength(1);
    expect(await listJobs(actor, { vehicleId: input.vehicleId })).toHaveLength(1);
    expect(await beginJob(actor, input)).toEqual(answers[0]);
  });

  test('what is refused leaves nothing behind, and goes through put right under the same id', async () => {
    const actor = await demoActor();
    const [known] = await listVehicles(actor);
    const before = [await rowsOf(vehicles), await rowsOf(jobs), await rowsOf(circuitVersions)];
    const taken = newJob({ plate: known!.plate });
    expect(await beginJob(actor, taken)).toMatchObject({
      ok: false,
      message: expect.stringContaining(known!.plate),
    });
    // The vehicle is there, and its voltage said, before the job itself fails.
    const unheard = newJob({ id: taken.id, vehicleName: undefined, pattern: undefined });
    expect(await beginJob(actor, unheard)).toMatchObject({ ok: false });
    expect([await rowsOf(vehicles), await rowsOf(jobs), await rowsOf(circuitVersions)]).toEqual(before);
    expect(await beginJob(actor, { ...taken, plate: 'MB 414' })).toMatchObject({ ok: true, id: taken.id });
  });

  test('the words are the complaint’s, also on a vehicle that is mapped', async () => {
    const actor = await demoActor();
    const [vehicle] = await listVehicles(actor);
    const id = randomUUID();
    await beginJob(actor, { id, vehicleId: vehicle!.id, title: 'Shelf lamps flicker when it rains' });
    const job = (await loadJob(actor, id))!;
    expect(job.events.map((event) => event.body)).toEqual([
      { kind: 'complaint', words: 'Shelf lamps flicker when it rains' },
    ]);
  });

  test('a function that was tapped is the complaint’s, in a setting in which such a complaint can be', async () => {
    const actor = await demoActor();
    const vehicle = (await listVehicles(actor)).find((one) => one.name === 'Bakery van')!;
    const of = async (state: NewJob['state']) => {
      const id = randomUUID();
      const input = { id, vehicleId: vehicle.id, title: 'Fan', function: 'cabinet-fan', state };
      expect(await beginJob(actor, input)).toMatchObject({ ok: true, traced: true });
      const { circuits, events } = (await loadJob(actor, id))!;
      const body = events[0]!.body;
      if (body.kind !== 'complaint') throw new Error('no complaint');
      const circuit = circuits.find(({ functions }) => functions.some((one) => one.id === body.function))!;
      const model = new CircuitModel(circuit);
      return { body, on: model.expectedOn(model.function(body.function!), body.condition!) };
    };
    expect(await of('weak')).toMatchObject({ body: { function: 'cabinet-fan', state: 'weak' }, on: true });
    expect(await of('on-when-off')).toMatchObject({ on: false });
    const unknown = { id: randomUUID(), vehicleId: vehicle.id, title: 'Fan', function: 'no-such' };
    expect(await beginJob(actor, unknown)).toMatchObject({ ok: true, traced: false });
  });

  test('work is opened as work, on a new vehicle without a voltage; what was plugged in is asked no more', async () => {
    const actor = await demoActor();
    const work = newJob({ work: 'survey', pattern: undefined, nominalVolts: undefined });
    expect(await beginJob(actor, work)).toMatchObject({ ok: true, traced: false });
    const [row] = await listJobs(actor, { vehicleId: work.vehicleId });
    expect(row).toMatchObject({ title: work.title, stage: 'working' });
    const fault = newJob({ nothingPluggedIn: true });
    await beginJob(actor, fault);
    const job = (await loadJob(actor, fault.id))!;
    expect(job.events.map(({ body }) => body)).toMatchObject([
      { kind: 'complaint' },
      { kind: 'plugged-in', appliance: false },
    ]);
  });

  test('a vehicle is added once, however often it is asked for, and its plate is nobody else’s', async () => {
    const actor = await demoActor();
    const input = { id: randomUUID(), vehicleId: randomUUID(), name: 'Grey tipper', plate: 'MB 771' };
    const answers = await Promise.all([1, 2, 3].map(() => addVehicleAlone(actor, input)));
    expect(answers.every(({ ok }) => ok)).toBe(true);
    const maps = await loadVehicle(actor, input.vehicleId);
    expect(maps!.vehicle).toMatchObject({ name: 'Grey tipper', plate: 'MB 771', nominalVolts: null });
    const other = { ...input, id: randomUUID(), vehicleId: randomUUID() };
    expect(await addVehicleAlone(actor, other)).toMatchObject({
      ok: false,
      message: expect.stringContaining('MB 771'),
    });
    expect(await loadVehicle(actor, other.vehicleId)).toBeNull();
  });

  test('an id of another shop is refused and tells nothing', async () => {
    const input = newJob();
    await beginJob(await demoActor(), input);
    expect(await beginJob(await stranger(), newJob({ id: input.id }))).toMatchObject({ ok: false });
  });
});

describe('bringing files in', () => {
  test('the same request again makes no second version, also when another has come between', async () => {
    const actor = await demoActor();
    const vehicle = (await listVehicles(actor)).find((one) => one.name === 'Bakery van')!;
    const request = { id: randomUUID(), text: demoText('van-hatch-fridge.circuit.json') };
    const first = await importFile(actor, vehicle.id, request);
    await importFile(actor, vehicle.id, { ...request, id: randomUUID() });
    const versions = await rowsOf(circuitVersions);
    expect(await importFile(actor, vehicle.id, request)).toEqual(first);
    expect(await rowsOf(circuitVersions)).toBe(versions);
  });

  test('a fact about a field that somebody else has changed meanwhile is refused with both values; other fields join', async () => {
    const actor = await demoActor();
    const vehicle = (await listVehicles(actor)).find((one) => one.name === 'Bakery van')!;
    const wire = (await loadVehicle(actor, vehicle.id))!.circuits
      .flatMap((one) => one.file.parts)
      .find((part) => part.kind === 'wire')!;
    const was = { colour: 'colour' in wire ? (wire.colour ?? null) : null, endA: null };
    const fact = (fields: object) => ({ id: randomUUID(), part: wire.id, fields: { ...fields }, was });
    expect(await learnFact(actor, vehicle.id, fact({ colour: 'GN/WH' }))).toEqual({ ok: true });
    expect(await learnFact(actor, vehicle.id, fact({ endA: 'behind the sill' }))).toEqual({ ok: true });
    const late = await learnFact(actor, vehicle.id, fact({ colour: 'VT' }));
    expect(late).toMatchObject({ ok: false, message: expect.stringMatching(/GN\/WH.*VT/) });
    // The same value twice is no conflict.
    expect(await learnFact(actor, vehicle.id, fact({ colour: 'GN/WH' }))).toEqual({ ok: true });
  });
});

describe('two people who draw in one box', () => {
  async function box() {
    const actor = await demoActor();
    const vehicle = (await listVehicles(actor)).find((one) => one.name === 'Bakery van')!;
    const set = (await loadVehicle(actor, vehicle.id))!.panelSet!;
    const [first, second] = set.file.panels[0]!.slots;
    const save = (file: PanelSetFile) =>
      importFile(actor, vehicle.id, { id: randomUUID(), text: JSON.stringify(file), base: set.version });
    const changed = (id: string, fields: Partial<Slot>): PanelSetFile => ({
      ...set.file,
      panels: set.file.panels.map((panel, index) =>
        index === 0
          ? { ...panel, slots: panel.slots.map((slot) => (slot.id === id ? { ...slot, ...fields } : slot)) }
          : panel,
      ),
    });
    const now = async (id: string) =>
      (await loadVehicle(actor, vehicle.id))!.panelSet!.file.panels[0]!.slots.find((one) => one.id === id);
    return { first: first!, second: second!, save, changed, now };
  }

  test('change two slots, and both stand', async () => {
    const { first, second, save, changed, now } = await box();
    expect(await save(changed(first.id, { meaning: 'Bread shelf lamps' }))).toMatchObject({ ok: true });
    const later = await save(changed(second.id, { meaning: 'Till drawer' }));
    expect(later).toMatchObject({ ok: true, joined: expect.anything() });
    expect(await now(first.id)).toMatchObject({ meaning: 'Bread shelf lamps' });
    expect(await now(second.id)).toMatchObject({ meaning: 'Till drawer' });
  });

  test('change one field to different values, and the later is shown both; nothing is overwritten', async () => {
    const { first, save, changed, now } = await box();
    await save(changed(first.id, { meaning: 'Oven light' }));
    const later = await save(changed(first.id, { meaning: 'Mixer lamp', label: 'MIX' }));
    if (later.ok) throw new Error('The later must be asked.');
    expect(later.problems.map((one) => one.message).join(' ')).toMatch(/“Oven light”.*“Mixer lamp”/);
    expect(later.newest?.joined?.panels[0]?.slots.find((one) => one.id === first.id)).toMatchObject({
      label: 'MIX',
    });
    expect(await now(first.id)).toMatchObject({ meaning: 'Oven light' });
  });
});

describe('the log', () => {
  test('a receipt names who recorded an entry, whoever sends it again', async () => {
    const actor = await demoActor();
    const jobId = await freshJob();
    const event = note(jobId, 'mine');
    await appendEvents(actor, [event]);
    const other = await colleague(actor, 'Tess Wray');
    const again = await appendEvents(other, [event, note(jobId, 'theirs', 1)]);
    expect(again).toMatchObject({
      ok: true,
      stored: [{ person: actor.personName }, { person: 'Tess Wray' }],
    });
  });

  test('an entry that the database cannot hold is named, and none of its batch is kept', async () => {
    const actor = await demoActor();
    const jobId = await freshJob();
    const bad = { ...note(jobId, 'far out'), clientOrder: 3e9 };
    const result = await appendEvents(actor, [note(jobId, 'fine'), bad, note(jobId, 'fine too', 2)]);
    expect(result).toMatchObject({ ok: false, code: 'refused-by-database', event: bad.id });
    const nul = { ...note(jobId, 'nul'), body: { kind: 'note' as const, words: 'fan\u0000' } };
    expect(await appendEvents(actor, [nul])).toMatchObject({ ok: false, event: nul.id });
    expect(await database().select().from(jobEvents).where(eq(jobEvents.jobId, jobId))).toEqual([]);
  });
});

describe('photos', () => {
  const picture = (background: string) =>
    sharp({ create: { width: 20, height: 20, channels: 3, background } })
      .jpeg()
      .toBuffer();

  test('the same again changes nothing; another picture, job or shop under its id is refused', async () => {
    const actor = await demoActor();
    const [jobId, otherJob] = [await freshJob(), await freshJob()];
    const id = randomUUID();
    const red = await picture('#f00');
    expect(await keepPhoto(actor, jobId, id, red)).toEqual({ ok: true });
    expect(await keepPhoto(actor, jobId, id, red)).toEqual({ ok: true });
    expect(await keepPhoto(actor, jobId, id, await picture('#00f'))).toMatchObject({
      ok: false,
      code: 'id-taken',
    });
    expect(await keepPhoto(actor, otherJob, id, red)).toMatchObject({ ok: false, code: 'id-taken' });
    expect(await keepPhoto(await stranger(), jobId, id, red)).toMatchObject({
      ok: false,
      code: 'unknown-job',
    });
  });
});

describe('the demo', () => {
  test('comes in as a whole or not at all, and once', async () => {
    const url = process.env.DATABASE_URL!;
    const { closeDatabase } = await import('@/db/client');
    await closeDatabase();
    process.env.DATABASE_URL = `${url}_empty`;
    const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-demo-'));
    try {
      migrate(false);
      cpSync('demo', folder, { recursive: true });
      const file = path.join(folder, 'workshop.json');
      const workshop = JSON.parse(readFileSync(file, 'utf8')) as { jobs: { key: string; vehicle: string }[] };
      // One job is enough to be lost with the next, which names a vehicle that there is not.
      const [first] = workshop.jobs;
      const whole = JSON.stringify({ ...workshop, jobs: [first] });
      const spoilt = { ...workshop, jobs: [first, { ...first, key: 'spoilt', vehicle: 'no such vehicle' }] };
      writeFileSync(file, JSON.stringify(spoilt));
      await expect(bringDemo(folder)).rejects.toThrow();
      for (const table of [shops, people, vehicles, jobs, jobCircuits, panelSetVersions]) {
        expect(await database().select().from(table)).toEqual([]);
      }
      writeFileSync(file, whole);
      const said = await Promise.all([bringDemo(folder), bringDemo(folder)]);
      expect(said.filter((one) => one.startsWith('The demo workshop is in'))).toHaveLength(1);
      expect(await database().select().from(shops)).toHaveLength(1);
      expect(
        await database()
          .select()
          .from(jobs)
          .where(and(eq(jobs.lastSeq, 0))),
      ).toEqual([]);
    } finally {
      await closeDatabase();
      process.env.DATABASE_URL = url;
      rmSync(folder, { recursive: true, force: true });
    }
  }, 30_000);
});
