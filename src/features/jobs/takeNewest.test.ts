/** What is drawn while a job is open is said, and taken up when it is wanted; nothing that was read goes. */
import { randomUUID } from 'node:crypto';
import { USUAL_HAND } from '#core/format';
import { handOf, keepHand } from '@/features/shop/server';
import { importFile } from '@/features/vehicles/server';
import { demoActor, stranger, withDatabase } from '../../../testing/database';
import { boxOf } from '../../../testing/panels';
import { beginJob, loadJobAlone, newerMaps, takeNewest } from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

async function jobOnNewVehicle() {
  const actor = await demoActor();
  const [id, vehicleId] = [randomUUID(), randomUUID()];
  const begun = await beginJob(actor, {
    id,
    title: 'Step lamp dead',
    vehicleId,
    vehicleName: 'Grey tipper',
    plate: randomUUID().slice(0, 8),
    nominalVolts: 12,
    pattern: 'fuse-switch-load',
    kind: 'lamp',
    load: 'Step lamp',
    state: 'dead',
  });
  expect(begun).toMatchObject({ ok: true });
  return { actor, id, vehicleId };
}

const lines = (name: string) =>
  `circuit other-rear "${name}" 12 V\nbattery B9, fuse F9 10 A, lamp L9 "${name}" 5 W, earth G9\nwhen off "Off": key off\nwhen on "On": key run`;

test('a box drawn while the job is open is there with one tap, and nothing is said before', async () => {
  const { actor, id, vehicleId } = await jobOnNewVehicle();
  expect(await newerMaps(actor, id)).toBeNull();
  const brought = await importFile(actor, vehicleId, { id: randomUUID(), text: JSON.stringify(boxOf(4, 2)) });
  expect(brought).toMatchObject({ ok: true });
  expect(await newerMaps(actor, id)).toMatchObject({ boxes: true, circuits: [] });
  expect((await loadJobAlone(actor, id))!.panelSet).toBeNull();
  expect(await takeNewest(actor, id, randomUUID())).toEqual({ ok: true });
  expect((await loadJobAlone(actor, id))!.panelSet!.panels[0]!.slots).toHaveLength(4);
  expect(await newerMaps(actor, id)).toBeNull();
});

test('a circuit drawn meanwhile joins the job; its own stays in its place', async () => {
  const { actor, id, vehicleId } = await jobOnNewVehicle();
  const before = (await loadJobAlone(actor, id))!.circuits.map((one) => one.id);
  const brought = await importFile(actor, vehicleId, { id: randomUUID(), text: lines('Rear lamp') });
  expect(brought).toMatchObject({ ok: true });
  expect((await newerMaps(actor, id))!.circuits).toEqual(['Rear lamp']);
  const request = randomUUID();
  expect(await takeNewest(actor, id, request)).toEqual({ ok: true });
  // The same request once more changes nothing.
  expect(await takeNewest(actor, id, request)).toEqual({ ok: true });
  const after = (await loadJobAlone(actor, id))!.circuits.map((one) => one.id);
  expect(after).toEqual([...before, 'other-rear']);
});

test('a circuit that lost what the job reads is not taken, and what it lost is named', async () => {
  const { actor, id, vehicleId } = await jobOnNewVehicle();
  const [own] = (await loadJobAlone(actor, id))!.circuits;
  const text = `circuit ${own!.id} "Step lamp" 12 V\nbattery, fuse F1 "Its fuse", lamp L1 "Step lamp" 5 W, earth G1 "Its earth point"\nfunction failed "Step lamp": L1\nwhen off "Everything off": key off\nwhen on "Its switch on": key run`;
  const brought = await importFile(actor, vehicleId, { id: randomUUID(), text });
  expect(brought).toMatchObject({ ok: true });
  const newer = await newerMaps(actor, id);
  expect(newer!.lost).not.toBeNull();
  expect(await takeNewest(actor, id, randomUUID())).toEqual({ ok: true });
  expect((await loadJobAlone(actor, id))!.circuits[0]!.parts.map((one) => one.id)).toEqual(
    own!.parts.map((one) => one.id),
  );
});

test('another shop is told nothing', async () => {
  const { id } = await jobOnNewVehicle();
  const other = await stranger();
  expect(await newerMaps(other, id)).toBeNull();
  expect(await takeNewest(other, id, randomUUID())).toMatchObject({ ok: false });
});

test('what a person has at hand is kept for that person, the usual until then', async () => {
  const [actor, other] = [await demoActor(), await stranger()];
  expect(await handOf(actor)).toEqual(USUAL_HAND);
  const hand = { ...USUAL_HAND, without: ['clamp' as const], fuses: 'pull' as const };
  expect(await keepHand(actor, { id: randomUUID(), hand })).toEqual({ ok: true });
  expect(await handOf(actor)).toEqual(hand);
  expect(await handOf(other)).toEqual(USUAL_HAND);
});
