/**
 * Queries of the main pages on the data of many years: none reads more rows than ten times those that it shows. A true
 * count reads what it counts, and nothing else of it than a row.
 */
import { sql } from 'drizzle-orm';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import {
  allFollowUps,
  countJobs,
  dueFollowUps,
  eventsAfter,
  listJobs,
  loadJob,
  slotHistory,
} from '@/features/jobs/server';
import { learning } from '@/features/shop/server';
import {
  chooseVehicles,
  circuitNames,
  countVehicles,
  listVehicles,
  loadVehicle,
  recentVehicles,
  searchShop,
} from '@/features/vehicles/server';
import { demoActor, withDatabase } from '../../testing/database';
import { plansOf } from '../../testing/plans';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

/** A query that shows little may still look at so many rows. */
const FEW = 40;

let actor: Actor;
let vehicleId: string;
let jobId: string;

/** The demo's rows many times over, in the database alone: 2,500 vehicles, 10,000 jobs, 100,000 entries, 20,000 slots. */
beforeAll(async () => {
  actor = await demoActor();
  const db = database();
  const shop = sql`${actor.shopId}::uuid`;
  const person = sql`${actor.personId}::uuid`;
  const uuid = (name: string, index = 'n') => sql.raw(`md5('${name} ' || ${index})::uuid`);
  await db.execute(sql`
    insert into vehicles (id, shop_id, name, make, model, plate, nominal_volts, notes)
    select ${uuid('vehicle')}, ${shop}, 'Tipper ' || n, '', '', 'AY ' || n, 12, '' from generate_series(1, 2500) n`);
  await db.execute(sql`
    insert into search_entries (key, shop_id, vehicle_id, kind, name, detail, href, words)
    select 'vehicle ' || ${uuid('vehicle')}, ${shop}, ${uuid('vehicle')}, 'vehicle', 'Tipper ' || n, 'AY ' || n, '',
      array_to_tsvector(array['=shop ' || ${actor.shopId}, '=kind vehicle', 'tipper', n::text, 'ay' || n])
    from generate_series(1, 2500) n`);
  await db.execute(sql`
    insert into search_entries (key, shop_id, vehicle_id, kind, name, detail, href, slot, sentence, words)
    select 'slot ' || n, ${shop}, ${uuid('vehicle', '(1 + n % 300)')}, 'slot', 'fuse ' || (n / 300), 'Tipper', '',
      json_build_object('id', 'f', 'type', 'fuse', 'number', (n / 300)::text, 'label', '', 'meaning', 'mirror ' || n),
      '', array_to_tsvector(array['=shop ' || ${actor.shopId}, '=kind slot', '=vehicle ' || ${uuid('vehicle', '(1 + n % 300)')},
        'fuse', (n / 300)::text, 'mirror', 'x' || n])
    from generate_series(1, 20000) n`);
  await db.execute(sql`
    insert into circuits (id, shop_id, vehicle_id, file_id, name, version, parts)
    select ${uuid('circuit')}, ${shop}, ${uuid('vehicle', '(1 + n % 2500)')}, 'c' || n, 'Circuit ' || n, 1, 20
    from generate_series(1, 7500) n`);
  await db.execute(sql`
    insert into circuit_versions (id, shop_id, circuit_id, version, file, made_by)
    select ${uuid('circuit version')}, ${shop}, ${uuid('circuit')}, 1, '{"id":"c","name":"c","parts":[]}', ${person}
    from generate_series(1, 7500) n`);
  await db.execute(sql`
    insert into panel_sets (id, shop_id, vehicle_id, file_id, name, version, panels, slots)
    select ${uuid('boxes')}, ${shop}, ${uuid('vehicle')}, 'boxes', 'Boxes', 1, 1, 60 from generate_series(1, 2500) n`);
  await db.execute(sql`
    insert into panel_set_versions (id, shop_id, panel_set_id, version, file, made_by)
    select ${uuid('boxes version')}, ${shop}, ${uuid('boxes')}, 1, '{"id":"b","name":"b","panels":[]}', ${person}
    from generate_series(1, 2500) n`);
  await db.execute(sql`
    insert into jobs (id, shop_id, vehicle_id, title, opened_by, opened_at, last_seq)
    select ${uuid('job')}, ${shop}, ${uuid('vehicle', '(1 + n % 2500)')}, 'Lamp dead ' || n, ${person},
      timestamptz '2020-01-01' + n * interval '4 hours', 10 from generate_series(1, 10000) n`);
  await db.execute(sql`
    insert into job_circuits (job_id, circuit_version_id, shop_id, position)
    select ${uuid('job')}, ${uuid('circuit version', '(1 + n % 900)')}, ${shop}, 0 from generate_series(1, 10000) n`);
  await db.execute(sql`
    insert into job_events (id, shop_id, job_id, seq, person_id, kind, body, client_order, made_at)
    select ${uuid('event')}, ${shop}, ${uuid('job', '(1 + n / 10)')}, 1 + n % 10, ${person}, 'note',
      '{"kind":"note","words":"dry"}', n % 10, now() from generate_series(0, 99999) n`);
  await db.execute(sql`
    insert into job_summaries (job_id, shop_id, stage, complaint, readings, last_seq, last_at)
    select ${uuid('job')}, ${shop}, case when n > 9760 then 'testing' else 'closed' end, 'Lamp dead', 4, 10,
      timestamptz '2020-01-01' + n * interval '4 hours' from generate_series(1, 10000) n`);
  await db.execute(sql`
    insert into follow_ups (event_id, shop_id, job_id, words, due, done)
    select ${uuid('watch')}, ${shop}, ${uuid('job')}, 'look again', date '2026-01-01' + n, n % 10 > 0
    from generate_series(1, 5000) n`);
  await db.execute(sql`
    insert into findings (job_id, shop_id, event_id, part_kind, mode, strength, arrived_at)
    select ${uuid('job')}, ${shop}, ${uuid('found')}, 'fuse', 'open', 'proved', now() from generate_series(1, 9000) n`);
  await db.execute(sql`
    insert into slot_sightings (event_id, shop_id, job_id, vehicle_id, person_id, seq, made_at, body)
    select ${uuid('seen')}, ${shop}, ${uuid('job')}, ${uuid('vehicle', '(1 + n % 2500)')}, ${person}, 1, now(),
      '{"kind":"slot-state"}' from generate_series(1, 8000) n`);
  await db.execute(sql`vacuum analyze`);
  const [row] = (
    await db.execute<{ job: string; vehicle: string }>(
      sql`select ${uuid('job', '9900')} as job, ${uuid('vehicle', '100')} as vehicle`,
    )
  ).rows;
  jobId = row!.job;
  vehicleId = row!.vehicle;
}, 120_000);

const WORK: readonly (readonly [string, () => Promise<unknown>])[] = [
  ['open jobs', () => listJobs(actor, 'open')],
  [
    'open jobs, further on',
    async () => listJobs(actor, 'open', { after: (await listJobs(actor, 'open')).at(-1)!.id }),
  ],
  ['closed jobs', () => listJobs(actor, 'closed')],
  ['jobs of a vehicle', () => listJobs(actor, { vehicleId })],
  [
    'counts of jobs',
    () =>
      Promise.all([countJobs(actor, 'open'), countJobs(actor, 'closed'), countJobs(actor, { vehicleId })]),
  ],
  ['vehicles', () => listVehicles(actor)],
  ['vehicles, further on', () => listVehicles(actor, vehicleId)],
  ['count of vehicles', () => countVehicles(actor)],
  ['recent vehicles', () => recentVehicles(actor, 8)],
  ['vehicles with boxes', () => chooseVehicles(actor, '', 20, true)],
  ['circuits of some vehicles', () => circuitNames(actor, [vehicleId])],
  ['follow-ups', () => dueFollowUps(actor, '2026-06-01')],
  ['all follow-ups', () => allFollowUps(actor)],
  ['search by plate', () => searchShop(actor, 'AY 417')],
  ['search by name of many', () => searchShop(actor, 'tipper')],
  ['search of a slot on all vehicles', () => searchShop(actor, 'fuse 14')],
  ['search of a slot by its vehicle', () => searchShop(actor, 'AY 17 fuse 14')],
  ['a vehicle', () => loadVehicle(actor, vehicleId)],
  ['a job', () => loadJob(actor, jobId)],
  ['what others recorded', () => eventsAfter(actor, jobId, 8)],
  ['what was seen in slots', () => slotHistory(actor, vehicleId)],
];

test.each(WORK)('%s', async (_name, work) => {
  const plans = await plansOf(work);
  expect(plans.length).toBeGreaterThan(0);
  for (const { text, gives, reads, counts, nodes } of plans) {
    const most = counts ? Number.POSITIVE_INFINITY : Math.max(FEW, 10 * gives);
    if (reads > most) throw new Error(`${reads} rows read, ${gives} shown, by ${nodes.join(', ')}: ${text}`);
  }
});

test('what a shop has learned is counted in the database and given as one row a form of fault', async () => {
  const plans = await plansOf(() => learning(actor));
  expect(Math.max(...plans.map((one) => one.gives))).toBeLessThan(200);
  expect(plans.flatMap((one) => one.nodes).filter((node) => node.includes('job_events'))).toEqual([]);
});
