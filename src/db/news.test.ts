/** What the database tells by itself, to whom, and to whom not. */
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Actor } from '@/access';
import { appendEvents } from '@/features/jobs/server';
import { changeStock, stockOf } from '@/features/stock/server';
import { demoActor, withDatabase } from '../../testing/database';
import { database } from './client';
import { listenTo, type News } from './news';
import { jobs, shops, vehicles } from './schema';

withDatabase();

let actor: Actor;
let job: typeof jobs.$inferSelect;
let other: typeof jobs.$inferSelect;
let heard: News[];
let stop: () => void;

beforeAll(async () => {
  actor = await demoActor();
  const all = await database().select().from(jobs).where(eq(jobs.shopId, actor.shopId));
  const twice = all.find((one) => all.some((two) => two.id !== one.id && two.vehicleId === one.vehicleId))!;
  job = twice;
  other = all.find((one) => one.id !== job.id && one.vehicleId === job.vehicleId)!;
});

beforeEach(async () => {
  heard = [];
  stop = listenTo(job.id, (news) => heard.push(news), [job.vehicleId, actor.shopId]);
  // The first time it is told of everything once the connection listens; then of this change.
  let tries = 0;
  await until(() => {
    if (heard.includes('held')) return true;
    if (tries++ % 100 === 0) void renameVehicle(`Try ${tries}`).execute();
    return false;
  });
  await quiet();
  heard.length = 0;
});
afterEach(() => stop());
afterAll(async () => {
  const held = globalThis as unknown as { everyTraceNews?: { client: { end(): Promise<void> } | null } };
  const listening = held.everyTraceNews;
  delete held.everyTraceNews;
  await listening?.client?.end();
});

async function until(happened: () => boolean): Promise<void> {
  const end = performance.now() + 5000;
  while (!happened()) {
    if (performance.now() > end) throw new Error(`It did not happen; heard: ${heard.join()}`);
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
}

/** Until nothing more is heard: what was told is told in order, behind a word that is told last. */
async function quiet(): Promise<void> {
  const before = heard.length;
  await renameVehicle('Quiet now');
  await until(() => heard.length > before);
}

/** Waits for word of a change that comes after all others: what was to be heard of those is heard by then. */
async function heardBefore(last: () => Promise<unknown>): Promise<News[]> {
  const before = heard.length;
  await last();
  await until(() => heard.length > before);
  return heard.slice(0, before);
}

const slotReading = (jobId: string) => ({
  id: randomUUID(),
  jobId,
  madeAt: new Date().toISOString(),
  clientOrder: 5000,
  body: {
    kind: 'slot-reading' as const,
    panel: 'cab',
    slot: 'fuse-14',
    ends: [{ end: 'feed' as const, value: { lamp: 'lit' as const } }],
    state: 'run' as const,
    fuseOut: false,
    testerProved: true,
  },
});
const renameVehicle = (name: string) =>
  database().update(vehicles).set({ make: name }).where(eq(vehicles.id, job.vehicleId));

test('a piece that is booked, a vehicle that is put right, a rate: each is told to the jobs that hold it', async () => {
  const { levels, places } = await stockOf(actor);
  await changeStock(actor, {
    kind: 'booked',
    id: randomUUID(),
    item: levels[0]!.item.id,
    place: places[0]!.id,
    count: 3,
    words: '',
  });
  await until(() => heard.includes('held'));
  heard.length = 0;
  await renameVehicle('Ostrey');
  await until(() => heard.includes('held'));
  heard.length = 0;
  await database().update(shops).set({ hourlyRate: 61 }).where(eq(shops.id, actor.shopId));
  await until(() => heard.includes('held'));
});

test('a slot that another job of the vehicle has read is told; one that the job read itself is an entry and no more', async () => {
  expect((await appendEvents(actor, [slotReading(other.id)])).ok).toBe(true);
  await until(() => heard.includes('held'));
  expect(heard).not.toContain('entries');
  heard.length = 0;
  expect((await appendEvents(actor, [slotReading(job.id)])).ok).toBe(true);
  await until(() => heard.includes('entries'));
  expect(await heardBefore(() => renameVehicle('Dunlin'))).toEqual(['entries']);
});

test('what happens on another vehicle, or in another shop, is not heard', async () => {
  const [far] = await database()
    .insert(shops)
    .values({ id: randomUUID(), name: 'Fenwold Electrics', town: '' })
    .returning();
  await database().update(shops).set({ hourlyRate: 12 }).where(eq(shops.id, far!.id));
  const [otherVehicle] = await database()
    .insert(vehicles)
    .values({
      id: randomUUID(),
      shopId: actor.shopId,
      name: 'Mill cart',
      make: '',
      model: '',
      plate: 'MILL 9',
    })
    .returning();
  await database().update(vehicles).set({ make: 'Halvard' }).where(eq(vehicles.id, otherVehicle!.id));
  expect(await heardBefore(() => renameVehicle('Skerry'))).toEqual([]);
});

test('whoever no longer listens hears nothing', async () => {
  stop();
  await renameVehicle('Quiet');
  const again: News[] = [];
  const end = listenTo(job.id, (news) => again.push(news), [job.vehicleId]);
  await renameVehicle('Loud');
  await until(() => again.length > 0);
  end();
  expect(heard).toEqual([]);
});
