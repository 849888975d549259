/** The record of a vehicle in a real database: put right by two at once, merged, archived; a customer erased. */
import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import type { VehicleChange, VehicleRecord } from '#core/format';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { customers, searchEntries, vehicles } from '@/db/schema';
import { appendEvents, jobFile, listJobs, loadJob, openHazards, openJob } from '@/features/jobs/server';
import { demoActor, stranger, withDatabase } from '../../../testing/database';
import {
  addVehicleAlone,
  changeVehicle,
  customerOf,
  knownOf,
  listVehicles,
  loadVehicle,
  recordOf,
  searchShop,
} from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

let actor: Actor;
beforeAll(async () => {
  actor = await demoActor();
});

async function fresh(name: string, plate = '', volts: 12 | 24 | undefined = 12): Promise<string> {
  const vehicleId = randomUUID();
  const made = await addVehicleAlone(actor, {
    id: randomUUID(),
    vehicleId,
    name,
    plate,
    ...(volts === undefined ? {} : { nominalVolts: volts }),
  });
  expect(made).toMatchObject({ ok: true });
  return vehicleId;
}

const rowOf = async (id: string) => (await database().select().from(vehicles).where(eq(vehicles.id, id)))[0]!;
const ask = (vehicleId: string, change: Record<string, unknown>, who = actor) =>
  changeVehicle(who, vehicleId, { id: randomUUID(), ...change } as unknown as VehicleChange);

async function correct(vehicleId: string, was: VehicleRecord, more: Partial<VehicleRecord>) {
  return ask(vehicleId, { kind: 'correct', was, now: { ...was, ...more } });
}

test('what two people put right at once stays, unless they say two things of one field', async () => {
  const id = await fresh('Grey van', 'GV 1');
  const was = recordOf(await rowOf(id));
  expect(await correct(id, was, { plate: 'GV 11' })).toEqual({ ok: true });
  expect(await correct(id, was, { odometerKm: 5000 })).toEqual({ ok: true });
  expect(await rowOf(id)).toMatchObject({ plate: 'GV 11', odometerKm: 5000 });
  expect(await correct(id, was, { plate: 'GV 12' })).toMatchObject({
    ok: false,
    message: expect.stringContaining('somebody saved “GV 11” meanwhile, you wrote “GV 12”'),
  });
  expect(await rowOf(id)).toMatchObject({ plate: 'GV 11' });
});

test('the plate of another vehicle is refused with its name, and what to do', async () => {
  const one = await fresh('Green tipper', 'GT 7');
  const other = await fresh('Tipper, green', 'GT 8');
  expect(one).toBeDefined();
  expect(await correct(other, recordOf(await rowOf(other)), { plate: 'GT 7' })).toMatchObject({
    ok: false,
    message: expect.stringContaining('Green tipper'),
  });
});

test('the search finds it by its new name, its make, its other names and its customer, and not by the old ones', async () => {
  const id = await fresh('Wrongly named', 'WN 3');
  await correct(id, recordOf(await rowOf(id)), {
    name: 'Quarry loader',
    make: 'Dunlin',
    otherNames: 'the yellow one, Bertha',
  });
  const customer = {
    kind: 'customer',
    customerId: randomUUID(),
    name: 'Ruvena Oakshott',
    reach: 'at the quarry',
  };
  expect(await ask(id, customer)).toEqual({ ok: true });
  const finds = async (text: string) => (await searchShop(actor, text)).vehicles.some((one) => one.id === id);
  for (const text of ['Quarry', 'Dunlin', 'Bertha', 'yellow', 'Oakshott', 'WN 3'])
    expect([text, await finds(text)]).toEqual([text, true]);
  expect(await finds('Wrongly')).toBe(false);
});

test('archived it leaves the lists, and is found by the search; back it stands in them again', async () => {
  const id = await fresh('Old ferry', 'OF 1');
  const listed = async () => (await listVehicles(actor)).some((one) => one.id === id);
  expect(await listed()).toBe(true);
  await ask(id, { kind: 'archive', archived: true });
  expect(await listed()).toBe(false);
  expect((await searchShop(actor, 'Old ferry')).vehicles[0]).toMatchObject({ id, detail: 'OF 1, archived' });
  await ask(id, { kind: 'archive', archived: false });
  expect(await listed()).toBe(true);
});

test('a vehicle that was entered twice: jobs, hazards and names go over, and the old record leads there', async () => {
  const one = await fresh('Tow truck', 'TT 1');
  const twice = await fresh('Truck for towing', 'TT-01');
  const jobId = randomUUID();
  await openJob(actor, { id: jobId, vehicleId: twice, title: 'Winch lamp dead' });
  const event = (body: object) => ({
    id: randomUUID(),
    jobId,
    madeAt: new Date().toISOString(),
    clientOrder: 1,
    body,
  });
  await appendEvents(actor, [event({ kind: 'appliance-set-aside', words: 'cool box' }) as never]);
  await correct(twice, recordOf(await rowOf(twice)), { odometerKm: 90_000, make: 'Halvard' });
  expect(await ask(twice, { kind: 'merge', into: one })).toMatchObject({
    ok: true,
    message: 'Merged into Tow truck.',
  });
  expect((await listJobs(actor, { vehicleId: one })).map(({ id }) => id)).toEqual([jobId]);
  expect((await openHazards(actor, { vehicleId: one })).count).toBe(1);
  expect(await rowOf(one)).toMatchObject({ odometerKm: 90_000, make: 'Halvard' });
  expect(await rowOf(twice)).toMatchObject({ mergedInto: one });
  expect((await loadVehicle(actor, twice))?.vehicle.mergedInto).toBe(one);
  // Found by what it was called, as the one that it is.
  expect((await searchShop(actor, 'Truck for towing')).vehicles.map(({ id }) => id)).toEqual([one]);
  expect((await searchShop(actor, 'Winch lamp')).jobs).toHaveLength(1);
  expect(await ask(twice, { kind: 'merge', into: one })).toMatchObject({ ok: false });
});

test('what cannot be one vehicle is not merged: itself, other volts, one of another shop', async () => {
  const low = await fresh('Launch A', 'LA', 12);
  const high = await fresh('Launch B', 'LB', 24);
  expect(await ask(low, { kind: 'merge', into: low })).toMatchObject({ ok: false });
  expect(await ask(low, { kind: 'merge', into: high })).toMatchObject({
    ok: false,
    message: expect.stringContaining('12 V vehicle'),
  });
  const away = await stranger();
  expect(await ask(low, { kind: 'merge', into: high }, away)).toMatchObject({ ok: false });
  expect(await ask(low, { kind: 'archive', archived: true }, away)).toMatchObject({ ok: false });
  expect((await rowOf(low)).archivedAt).toBeNull();
});

test('an erased customer is gone from every table, and stood in no file that left', async () => {
  const id = await fresh('Hay wagon', 'HW 1');
  const customer = {
    kind: 'customer',
    customerId: randomUUID(),
    name: 'Ignaz Thornquill',
    reach: '0999 555 017',
  };
  await ask(id, customer);
  const jobId = randomUUID();
  await openJob(actor, { id: jobId, vehicleId: id, title: 'Tail lamp dead' });
  const file = JSON.stringify(jobFile((await loadJob(actor, jobId))!));
  expect(file).not.toContain('Thornquill');
  expect(file).not.toContain('0999 555 017');
  expect(await customerOf(actor, (await rowOf(id)).customerId)).toMatchObject({ name: 'Ignaz Thornquill' });
  await ask(id, { kind: 'erase-customer' });
  expect((await rowOf(id)).customerId).toBeNull();
  expect(await database().select().from(customers)).not.toContainEqual(
    expect.objectContaining({ name: 'Ignaz Thornquill' }),
  );
  const left = await database()
    .select({ key: searchEntries.key })
    .from(searchEntries)
    .where(sql`${searchEntries.words}::text ilike '%thornquill%'`);
  expect(left).toEqual([]);
  expect((await listJobs(actor, { vehicleId: id })).length).toBe(1);
});

test('what speaks against a change: kilometres that jobs have read, volts of the circuits, plates of the others', async () => {
  const van = (await listVehicles(actor)).find(({ name }) => name === 'Bakery van')!;
  const known = await knownOf(actor, van.id);
  expect(known.odometers).toContainEqual(expect.objectContaining({ km: 148_210 }));
  expect(known.circuits.every(({ nominalVolts }) => nominalVolts === 12)).toBe(true);
  expect(known.plates.map(({ plate }) => plate)).toContain('TR 15 HAL');
  expect(known.plates.map(({ plate }) => plate)).not.toContain(van.plate);
});
