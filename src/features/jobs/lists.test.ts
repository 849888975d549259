/** Lists go on from page to page until everything was shown once, and their counts are true. */
import { randomUUID } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { database } from '@/db/client';
import { rebuildMapRows } from '@/db/projections/mapRows';
import { circuits, panelSets, vehicles } from '@/db/schema';
import {
  chooseVehicles,
  countVehicles,
  knownVehicles,
  listVehicles,
  recentVehicles,
  VEHICLE_PAGE,
} from '@/features/vehicles/server';
import { demoActor, withDatabase } from '../../../testing/database';
import {
  appendEvents,
  calendarOfFollowUps,
  countJobs,
  FOLLOW_UP_PAGE,
  JOB_PAGE,
  type JobList,
  listJobs,
  openJob,
} from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

test('every job of a list is shown once, whatever stands at the same moment', async () => {
  const actor = await demoActor();
  const [vehicle] = await listVehicles(actor);
  const openedAt = '2026-05-04T08:00:00.000Z';
  const made = Array.from({ length: 2 * JOB_PAGE + 3 }, () => randomUUID());
  for (const id of made) {
    await openJob(actor, { id, vehicleId: vehicle!.id, title: `Lamp ${id.slice(0, 4)}`, openedAt });
  }
  await appendEvents(
    actor,
    made.slice(0, JOB_PAGE + 5).map((jobId) => ({
      id: randomUUID(),
      jobId,
      madeAt: openedAt,
      clientOrder: 0,
      body: { kind: 'state', state: 'closed' },
    })),
  );
  const lists: JobList[] = ['open', 'closed', { vehicleId: vehicle!.id }];
  for (const list of lists) {
    const shown: string[] = [];
    for (let after: string | null = null; ; ) {
      const page: readonly { id: string }[] = await listJobs(actor, list, { after });
      shown.push(...page.map((one) => one.id));
      if (page.length < JOB_PAGE) break;
      after = page.at(-1)!.id;
    }
    expect(new Set(shown).size).toBe(shown.length);
    expect(shown.length).toBe(await countJobs(actor, list));
  }
  expect(await countJobs(actor, { vehicleId: vehicle!.id })).toBeGreaterThanOrEqual(made.length);
});

test('every vehicle is shown once, also where many have one name; a choice finds those that are not offered', async () => {
  const actor = await demoActor();
  const { shopId } = actor;
  await database()
    .insert(vehicles)
    .values(
      Array.from({ length: 2 * VEHICLE_PAGE }, (_, index) => ({
        id: randomUUID(),
        shopId,
        name: index % 2 === 0 ? 'Box van' : `Tipper ${index}`,
        make: '',
        model: '',
        plate: `LT ${index}`,
      })),
    );
  const shown: string[] = [];
  for (let after: string | null = null; ; ) {
    const page: readonly { id: string }[] = await listVehicles(actor, after);
    shown.push(...page.map((one) => one.id));
    if (page.length < VEHICLE_PAGE) break;
    after = page.at(-1)!.id;
  }
  expect(new Set(shown).size).toBe(shown.length);
  expect(shown.length).toBe(await countVehicles(actor));
  const recent = await recentVehicles(actor, 6);
  expect(recent).toHaveLength(6);
  const boxed = await chooseVehicles(actor, '', 50, true);
  expect(boxed.length).toBeGreaterThan(0);
  expect(boxed.every((one) => one.hasBoxes)).toBe(true);
  expect(await knownVehicles(actor, [recent[3]!.id, recent[1]!.id])).toEqual([recent[3], recent[1]]);
});

test('version and counts on the row of a map are those of its newest version', async () => {
  const read = () =>
    Promise.all([
      database().select().from(circuits).orderBy(circuits.id),
      database().select().from(panelSets).orderBy(panelSets.id),
    ]);
  const kept = await read();
  expect(kept[0].every((one) => one.version > 0 && one.parts > 0)).toBe(true);
  await database().execute(sql`update circuits set version = 0, parts = 0`);
  await database().execute(sql`update panel_sets set version = 0, panels = 0, slots = 0`);
  await rebuildMapRows();
  expect(await read()).toEqual(kept);
});

test('every follow-up with a day is in the calendar once, over more than one page', async () => {
  const actor = await demoActor();
  const [vehicle] = await listVehicles(actor);
  const jobId = randomUUID();
  await openJob(actor, { id: jobId, vehicleId: vehicle!.id, title: 'Lamp weak' });
  const watches = Array.from({ length: FOLLOW_UP_PAGE + 7 }, (_, index) => ({
    id: randomUUID(),
    jobId,
    madeAt: '2026-05-04T08:00:00.000Z',
    clientOrder: index,
    body: {
      kind: 'watch' as const,
      words: `Look ${index}`,
      ...(index % 10 === 0 ? {} : { due: `2026-12-${String((index % 28) + 1).padStart(2, '0')}` }),
    },
  }));
  await appendEvents(actor, watches);
  const text = await calendarOfFollowUps(actor);
  const found = [...text.matchAll(/^UID:(.{36})@/gm)].map(([, id]) => id);
  const dated: string[] = watches.filter(({ body }) => 'due' in body).map(({ id }) => id);
  expect(found.filter((id) => dated.includes(id!)).sort()).toEqual(dated.sort());
  expect(new Set(found).size).toBe(found.length);
});
