/** Job files come in again as they go out, whatever their version and wherever they are brought. */
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { and, eq } from 'drizzle-orm';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { jobEvents, people, vehicles } from '@/db/schema';
import { listVehicles, loadVehicle } from '@/features/vehicles/server';
import { demoActor, stranger, withDatabase } from '../../../testing/database';
import { importJob, jobFile, listJobs, loadJob } from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

const ask = (text: string) => ({ id: randomUUID(), text });
const stored = (name: string) => readFileSync(`testing/stored/${name}`, 'utf8');

async function exported(actor: Actor, id: string) {
  return jobFile((await loadJob(actor, id))!);
}

/** A job file with every id of its own told apart by its place alone. */
function withoutIds(file: Awaited<ReturnType<typeof exported>>) {
  const ids = [file.job.id, ...file.events.map((event) => event.id)];
  const text = ids.reduce((now, id, index) => now.replaceAll(id, `id-${index}`), JSON.stringify(file));
  return JSON.parse(text) as typeof file;
}

test('out and in again, into another shop: vehicle, maps, every entry with its person and its moments', async () => {
  const actor = await demoActor();
  const shop = await stranger();
  for (const job of [...(await listJobs(actor, 'open')), ...(await listJobs(actor, 'closed'))]) {
    // Jobs of the van share its maps; each other one goes to a shop that has nothing yet.
    const elsewhere = job.vehicleName === 'Bakery van' ? shop : await stranger();
    const out = await exported(actor, job.id);
    const made = await importJob(elsewhere, ask(JSON.stringify(out)));
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    expect(withoutIds(await exported(elsewhere, made.id))).toEqual({
      ...withoutIds(out),
      vehicle: { ...out.vehicle, odometerKm: out.vehicle.odometerKm },
    });
    const [row] = (await listJobs(elsewhere, 'closed'))
      .concat(await listJobs(elsewhere, 'open'))
      .filter((one) => one.id === made.id);
    expect(row).toMatchObject({
      title: job.title,
      stage: job.stage,
      found: job.found,
      readings: job.readings,
    });
  }
  // Two jobs of one vehicle stand on one vehicle: the second found the maps of the first.
  expect((await listVehicles(shop)).map((one) => one.name)).toEqual(['Bakery van']);
});

/** An open job of the demo as a file in which the owner of this workshop has done everything, and has closed it. */
async function forged(actor: Actor): Promise<string> {
  const [owner] = await database()
    .select()
    .from(people)
    .where(and(eq(people.shopId, actor.shopId), eq(people.role, 'owner')));
  const job = (await listJobs(actor, 'open')).find(({ title }) => title.startsWith('Proving'));
  const out = await exported(actor, job!.id);
  const seq = out.events.length + 1;
  const closed = {
    ...out.events.at(-1)!,
    ...{
      id: randomUUID(),
      seq,
      body: { kind: 'state' as const, state: 'closed' as const },
    },
  };
  const events = [...out.events, closed].map((event) => ({ ...event, person: owner!.name }));
  return JSON.stringify({ ...out, events }).replaceAll(job!.id, randomUUID());
}

test('a file speaks for nobody of this workshop: its entries stand under who brought it in, with the name as the file’s', async () => {
  const actor = await demoActor();
  const made = await importJob(actor, ask(await forged(actor)));
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  const rows = await database().select().from(jobEvents).where(eq(jobEvents.jobId, made.id));
  expect(new Set(rows.map(({ personId }) => personId))).toEqual(new Set([actor.personId]));
  const shown = new Set((await loadJob(actor, made.id))!.events.map(({ person }) => person));
  expect([...shown]).toEqual([
    expect.stringMatching(new RegExp(`^.+ \\(from a file, imported by ${actor.personName}\\)$`)),
  ]);
  // Out again it says what the file said.
  expect((await exported(actor, made.id)).events.every(({ person }) => !person.includes('from a file'))).toBe(
    true,
  );
});

test('what a learner may not record by hand a file does not record either', async () => {
  const actor = await demoActor();
  const learner = { ...actor, role: 'learner' as const };
  const text = await forged(actor);
  expect(await importJob(learner, ask(text))).toMatchObject({
    ok: false,
    problems: [{ code: 'needs-word', message: expect.stringContaining('asks for the word') }],
  });
  expect(await loadJob(actor, JSON.parse(text).job.id)).toBeNull();
});

test('a job that is here already is refused, and the same request answered again as it was', async () => {
  const actor = await demoActor();
  const [job] = await listJobs(actor, 'open');
  const text = JSON.stringify(await exported(actor, job!.id));
  expect(await importJob(actor, ask(text))).toMatchObject({ ok: false, problems: [{ code: 'is-here' }] });
  const elsewhere = await stranger();
  const request = ask(text);
  const first = await importJob(elsewhere, request);
  expect(await importJob(elsewhere, request)).toEqual(first);
});

test('maps that are here and differ are left alone: the job comes in on a vehicle of its own', async () => {
  const actor = await demoActor();
  const elsewhere = await stranger();
  const [job] = (await listJobs(actor, 'open')).filter((one) => one.title.startsWith('Proving'));
  const out = await exported(actor, job!.id);
  const first = await importJob(elsewhere, ask(JSON.stringify(out)));
  if (!first.ok) throw new Error('not taken');
  const here = (await loadJob(elsewhere, first.id))!.vehicle;
  const [circuit, ...others] = out.circuits;
  const changed = { ...out, circuits: [{ ...circuit!, name: `${circuit!.name}, redrawn` }, ...others] };
  const second = await importJob(elsewhere, ask(JSON.stringify(changed)));
  if (!second.ok) throw new Error(JSON.stringify(second.problems));
  const own = (await loadJob(elsewhere, second.id))!.vehicle;
  expect(own.id).not.toBe(here.id);
  const maps = (await loadVehicle(elsewhere, here.id))!;
  expect(maps.circuits.map((one) => [one.file.name, one.version])).toEqual(
    out.circuits.map((one) => [one.name, 1]).sort(),
  );
});

test('a job file of version 1, kept as it was, comes in; what it did not say is worked out or left open', async () => {
  const elsewhere = await stranger();
  const made = await importJob(elsewhere, ask(stored('job.v1.json')));
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  const old = JSON.parse(stored('job.v1.json'));
  const now = await exported(elsewhere, made.id);
  expect(old.version).toBe(1);
  expect(now).toMatchObject({ version: 2, vehicle: { ...old.vehicle, nominalVolts: 12, odometerKm: null } });
  expect(now.events.map((event) => event.body)).toHaveLength(old.events.length);
});

test.each([
  ['a newer version', (file: Record<string, unknown>) => ({ ...file, version: 9 }), /reads up to version 2/],
  [
    'an entry twice',
    (file: { events: unknown[] }) => ({ ...file, events: [...file.events, file.events[0]] }),
    /stands twice/,
  ],
  [
    'a gap',
    (file: { events: unknown[] }) => ({ ...file, events: file.events.slice(1) }),
    /stands at place 1/,
  ],
  ['no job', () => ({ format: 'every-trace/job', version: 2 }), /job/],
  ['a circuit', (file: { circuits: unknown[] }) => file.circuits[0], /“every-trace\/job” is wanted here/],
])('%s is refused in words, and nothing is there', async (_name, spoil, words) => {
  const elsewhere = await stranger();
  const actor = await demoActor();
  const [job] = await listJobs(actor, 'closed');
  const file = JSON.parse(JSON.stringify(await exported(actor, job!.id)));
  const made = await importJob(elsewhere, ask(JSON.stringify((spoil as (one: unknown) => unknown)(file))));
  expect(made.ok ? [] : made.problems.map((one) => one.message).join(' ')).toMatch(words);
  expect(await database().$count(vehicles)).toBeGreaterThan(0);
  expect(await listVehicles(elsewhere)).toEqual([]);
});
