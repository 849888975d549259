/** Links for guests: no more than a job may have, however they are asked for. */
import { randomUUID } from 'node:crypto';
import { listVehicles } from '@/features/vehicles/server';
import { demoActor, stranger, withDatabase } from '../../../testing/database';
import { changeGuests, guestOf, guestsOf, openJob } from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

test('forty links asked for at once: twenty are made, the others refused in words; one ended makes room', async () => {
  const actor = await demoActor();
  const [vehicle] = await listVehicles(actor);
  const job = randomUUID();
  expect(await openJob(actor, { id: job, vehicleId: vehicle!.id, title: 'Step lamp dead' })).toEqual({
    ok: true,
  });
  const link = { kind: 'make', sheet: 'customer', forWhom: 'Harbour master', days: 3 } as const;
  const answers = await Promise.all(Array.from({ length: 40 }, () => changeGuests(actor, job, link)));
  expect(answers.filter(({ ok }) => ok)).toHaveLength(20);
  expect(answers.find(({ ok }) => !ok)).toEqual({
    ok: false,
    status: 409,
    message: 'This job has 20 open links. End one of them first.',
  });
  const open = await guestsOf(actor, job);
  expect(open).toHaveLength(20);
  expect(await changeGuests(actor, job, { kind: 'end', link: open[0]!.id })).toEqual({ ok: true });
  const made = await changeGuests(actor, job, link);
  expect(made).toMatchObject({ ok: true, token: expect.any(String) });
  expect(await guestOf((made as { token: string }).token)).toMatchObject({ jobId: job, sheet: 'customer' });
});

test('a job of another shop has no links, and takes none', async () => {
  const actor = await demoActor();
  const [vehicle] = await listVehicles(actor);
  const job = randomUUID();
  await openJob(actor, { id: job, vehicleId: vehicle!.id, title: 'Step lamp dead' });
  const link = { kind: 'make', sheet: 'technician', forWhom: 'Nobody', days: 1 } as const;
  const other = await stranger();
  expect(await changeGuests(other, job, link)).toMatchObject({ ok: false, status: 404 });
  expect(await guestsOf(other, job)).toEqual([]);
});
