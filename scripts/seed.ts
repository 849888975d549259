/**
 * `npm run seed`: fills the database of DATABASE_URL with a workshop of many years, through the doors that people use. For
 * measuring: 10,000 jobs, 100,000 entries, 2,500 vehicles of which 300 are mapped, 50 technicians.
 */
import { createHash, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { checkCircuitText } from '../core/circuit';
import { type CircuitFile, checkPanelSetText, type EventBody, type PanelSetFile } from '../core/format';
import type { Actor } from '../src/access';
import { closeDatabase, database } from '../src/db/client';
import { keepVehicle } from '../src/db/projections/searchRows';
import { people, shops, vehicles } from '../src/db/schema';
import { transaction } from '../src/db/transaction';
import { appendIn, openJobIn } from '../src/features/jobs/server';
import { importIn } from '../src/features/vehicles/server';

export interface SeedSize {
  readonly jobs: number;
  /** Entries a job, complaint included. */
  readonly entries: number;
  readonly vehicles: number;
  readonly mapped: number;
  readonly people: number;
}

export const FULL: SeedSize = { jobs: 10_000, entries: 10, vehicles: 2500, mapped: 300, people: 50 };

/** Jobs of a seeded shop that are open: what a large workshop has at a time. */
const OPEN = 240;
const AT_ONCE = 6;

const WHAT = ['Tipper', 'Box van', 'Launch', 'Minibus', 'Pickup', 'Low loader', 'Road sweeper', 'Camper'];
const WHOSE = ['Quarry', 'Creamery', 'Harbour', 'Parish', 'Beekeeper’s', 'Cider press', 'Ferry', 'Orchard'];
const FAILS = [
  'Step lamp dead',
  'Hatch fan dead',
  'Bilge light dim',
  'Cabin fridge comes and goes',
  'Mirror heating dead',
  'Scale display dead',
  'Winch slow',
  'Reading lamp stays on',
];
const MAPS = ['van.panel-set.json', 'van-proving-cabinet.circuit.json', 'van-hatch-fridge.circuit.json'];
const DAY_MS = 86_400_000;
const BEGAN = Date.parse('2020-01-06T08:00:00Z');

const id = (name: string) => {
  const hex = createHash('sha256').update(`every-trace seed ${name}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
};
const pick = <T>(list: readonly T[], at: number): T => list[at % list.length]!;

function maps(): { set: PanelSetFile; circuits: readonly CircuitFile[] } {
  const folder = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../demo');
  const [set, ...circuits] = MAPS.map((file) => readFileSync(path.join(folder, file), 'utf8'));
  const boxes = checkPanelSetText(set!);
  if (!boxes.ok) throw new Error('The demo boxes do not check.');
  return {
    set: boxes.value,
    circuits: circuits.map((text) => {
      const checked = checkCircuitText(text);
      if (!checked.ok) throw new Error('A demo circuit does not check.');
      return checked.value;
    }),
  };
}

/** Work for every number below `count`, some at a time. */
async function each(count: number, work: (index: number) => Promise<unknown>): Promise<void> {
  let next = 0;
  const lane = async () => {
    for (let index = next++; index < count; index = next++) await work(index);
  };
  await Promise.all(Array.from({ length: AT_ONCE }, lane));
}

/** Entries of a job in their order; an open job is left in the middle. */
function bodies(job: number, count: number, open: boolean, mapped: boolean): EventBody[] {
  const asked = mapped ? { function: 'cabinet-fan', condition: 'fan-on' } : null;
  const readings = Array.from(
    { length: count - (open ? 2 : 6) },
    (_, index): EventBody => ({
      kind: 'reading',
      test: { kind: 'volts', node: 'bat-plus', against: 'bat-minus', condition: 'fan-on' },
      value: { volts: 12 + ((job + index) % 8) / 10 },
      raw: '12.4',
      testerProved: true,
    }),
  );
  const begun: EventBody[] = [
    { kind: 'complaint', words: pick(FAILS, job), ...(asked ?? {}), state: 'dead' },
    ...readings,
  ];
  if (open) return [...begun, { kind: 'note', words: `Waits for the owner, ${job}` }];
  const form = { part: 'f31', kind: pick(['fuse', 'wire', 'ground'], job), mode: 'open' };
  return [
    ...begun,
    job % 3 === 0
      ? { kind: 'slot-state', panel: 'box', slot: 'f31', state: 'missing', evidence: 'seen' }
      : { kind: 'note', words: 'Dry, nothing loose' },
    {
      kind: 'found',
      parts: ['f31'],
      fault: 'open',
      form,
      strength: job % 4 === 0 ? 'supported' : 'proved',
      cause: 'unknown',
      causeWords: '',
      evidence: [],
    },
    { kind: 'repair', words: 'Fitted anew', partsUsed: [], minutes: 20, temporary: false },
    job % 20 === 0
      ? { kind: 'watch', words: 'Look at the plug again', due: dayAfter(job) }
      : { kind: 'proof', ...(asked ?? { function: 'lamp', condition: 'on' }), state: 'works' },
    { kind: 'state', state: 'closed' },
  ];
}

const openedAt = (job: number, of: number) =>
  BEGAN + Math.floor((job / of) * 2000) * DAY_MS + (job % 9) * 3_600_000;
const dayAfter = (job: number) => new Date(BEGAN + (job % 2400) * DAY_MS).toISOString().slice(0, 10);

/** Fills the database with one shop more; gives its people and its open jobs. */
export async function seed(
  size: SeedSize,
  say: (line: string) => void = () => undefined,
): Promise<{ readonly actors: readonly Actor[]; readonly openJobs: readonly string[] }> {
  // Made up like the demo, and open like it to whoever sits at this machine.
  const shop = { id: id('shop'), name: 'Aldermoor Yard', town: 'Aldermoor', demo: true };
  await database().insert(shops).values(shop);
  const persons = Array.from({ length: size.people }, (_, index) => ({
    id: id(`person ${index}`),
    shopId: shop.id,
    name: `Technician ${String(index + 1).padStart(2, '0')}`,
    role: index === 0 ? ('owner' as const) : ('technician' as const),
  }));
  await database().insert(people).values(persons);
  const actors = persons.map(
    (one): Actor => ({
      personId: one.id,
      personName: one.name,
      role: one.role,
      shopId: shop.id,
      shopName: shop.name,
      town: shop.town,
      demo: true,
      account: null,
    }),
  );
  const fleet = Array.from({ length: size.vehicles }, (_, index) => ({
    id: id(`vehicle ${index}`),
    shopId: shop.id,
    name: `${pick(WHOSE, index)} ${pick(WHAT, Math.floor(index / 8)).toLowerCase()} ${index + 1}`,
    make: '',
    model: '',
    plate: `AY ${String(index + 1).padStart(4, '0')}`,
    nominalVolts: 12,
    otherNames: '',
    customerId: null,
    archivedAt: null,
  }));
  for (let from = 0; from < fleet.length; from += 500) {
    await database()
      .insert(vehicles)
      .values(fleet.slice(from, from + 500));
  }
  await each(fleet.length, (index) => transaction((tx) => keepVehicle(tx, fleet[index]!)));
  say(`${fleet.length} vehicles`);
  const { set, circuits } = maps();
  await each(size.mapped, (index) =>
    transaction(async (tx) => {
      const vehicle = fleet[index]!;
      for (const file of [set, ...circuits]) {
        const made = await importIn(tx, actors[0]!, vehicle.id, file);
        if (!made.ok) throw new Error(made.problems.map((one) => one.message).join(' '));
      }
    }),
  );
  say(`${size.mapped} of them mapped`);
  const openJobs: string[] = [];
  await each(size.jobs, async (index) => {
    const at = index % 3 === 0 ? index % size.mapped : index % size.vehicles;
    const isOpen = index >= size.jobs - OPEN;
    const jobId = id(`job ${index}`);
    if (isOpen) openJobs.push(jobId);
    const actor = pick(actors, index);
    const opened = openedAt(index, size.jobs);
    const entries = bodies(index, size.entries, isOpen, at < size.mapped).map((body, order) => ({
      id: randomUUID(),
      jobId,
      madeAt: new Date(opened + order * 240_000).toISOString(),
      clientOrder: order,
      body,
    }));
    await transaction(async (tx) => {
      const title = `${pick(FAILS, index)}, ${fleet[at]!.plate}`;
      const input = { id: jobId, vehicleId: fleet[at]!.id, title, openedAt: new Date(opened).toISOString() };
      const made = await openJobIn(tx, actor, input);
      if (!made.ok) throw new Error(made.message);
      // In two goes, as a phone sends them.
      for (const batch of [entries.slice(0, 4), entries.slice(4)]) {
        const kept = await appendIn(tx, actor, batch);
        if (!kept.ok) throw new Error(kept.message);
      }
    });
    if ((index + 1) % 2000 === 0) say(`${index + 1} jobs`);
  });
  await database().execute('analyze');
  return { actors, openJobs };
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  await seed(FULL, console.log);
  await closeDatabase();
}
