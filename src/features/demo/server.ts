/**
 * Brings the demo workshop in, through the same imports and the same log that people use. The readings of
 * half-done and closed jobs come from the model of a circuit with the fault that the job turned out to have.
 */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { checkCircuitText, mergeCircuits } from '#core/circuit';
import { DiagnosisSession, readingOf } from '#core/diagnosis';
import { breakCircuit, parseFault } from '#core/faults';
import {
  type BodyOf,
  type CircuitFile,
  checkPanelSetText,
  type EventBody,
  type JobEvent,
  type ReadingValue,
  type StockItem,
  type StockPlace,
  type StockRequest,
} from '#core/format';
import { wordOf } from '#core/log';
import type { Actor } from '@/access';
import { database, type Transaction } from '@/db/client';
import { keepVehicle } from '@/db/projections/searchRows';
import { people, shops, vehicles } from '@/db/schema';
import { appendIn, openJobIn } from '@/features/jobs/server';
import { change } from '@/features/stock/server';
import { importIn } from '@/features/vehicles/server';

interface DemoJob {
  key: string;
  vehicle: string;
  title: string;
  openedAt: string;
  circuits: string[];
  complaint: Omit<BodyOf<'complaint'>, 'kind'>;
  odometerKm?: number;
  fault?: string;
  checks?: [string, string][];
  tests?: number;
  found?: { fault: string; cause: 'proved' | 'suspected' | 'unknown'; causeWords: string };
  repair?: Omit<BodyOf<'repair'>, 'kind'>;
  proofs?: [string, string][];
  watch?: { words: string; due: string };
  closed?: boolean;
}

interface Workshop {
  shop: { name: string; town: string };
  people: { key: string; name: string; role: string }[];
  vehicles: (Omit<typeof vehicles.$inferInsert, 'id' | 'shopId'> & { key: string; files: string[] })[];
  jobs: DemoJob[];
}

/** The same id for the same name, so that addresses of the demo stay what they were. */
export function demoId(name: string): string {
  const hex = createHash('sha256').update(`every-trace demo ${name}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** Fills an empty database, all of it or nothing; leaves any other alone. Gives what was done, in a sentence. */
export async function bringDemo(folder: string): Promise<string> {
  const workshop = JSON.parse(readFileSync(path.join(folder, 'workshop.json'), 'utf8')) as Workshop;
  return database().transaction(async (tx) => {
    // Two who bring it at once wait for each other here, and the later finds it done.
    await tx.execute(sql`lock table ${shops} in exclusive mode`);
    const existing = await tx.select({ id: shops.id }).from(shops).limit(1);
    if (existing.length > 0) return 'The database holds a shop already; it was left as it is.';
    await bringShop(tx, folder, workshop);
    return `The demo workshop is in: ${workshop.vehicles.length} vehicles, ${workshop.jobs.length} jobs.`;
  });
}

async function bringShop(tx: Transaction, folder: string, workshop: Workshop): Promise<void> {
  const shopId = demoId('shop');
  const first = workshop.people[0]!;
  const actor: Actor = {
    personId: demoId(first.key),
    personName: first.name,
    shopId,
    shopName: workshop.shop.name,
    town: workshop.shop.town,
  };
  await tx.insert(shops).values({ id: shopId, ...workshop.shop });
  await tx
    .insert(people)
    .values(workshop.people.map(({ key, ...person }) => ({ ...person, id: demoId(key), shopId })));
  const brought = await tx
    .insert(vehicles)
    .values(
      workshop.vehicles.map(({ key, files: _files, ...vehicle }) => ({
        ...vehicle,
        id: demoId(key),
        shopId,
      })),
    )
    .returning();
  for (const vehicle of brought) await keepVehicle(tx, vehicle);
  const circuitOf = new Map<string, CircuitFile>();
  for (const vehicle of workshop.vehicles) {
    for (const file of vehicle.files) {
      const text = readFileSync(path.join(folder, file), 'utf8');
      const circuit = checkCircuitText(text);
      const checked = file.includes('panel-set') ? checkPanelSetText(text) : circuit;
      const result = checked.ok ? await importIn(tx, actor, demoId(vehicle.key), checked.value) : checked;
      if (!result.ok) throw new Error(`${file}: ${result.problems.map((one) => one.message).join(' ')}`);
      if (circuit.ok) circuitOf.set(circuit.value.id, circuit.value);
    }
  }
  await bringStock(tx, actor, folder);
  for (const job of workshop.jobs) await bringJob(tx, actor, job, circuitOf);
}

interface DemoStock {
  places: (Omit<StockPlace, 'id' | 'vehicleId'> & { key: string; vehicle?: string })[];
  items: (Omit<StockItem, 'id'> & { counts: Record<string, number> })[];
}

/** Places, items and what lies where, through the door that people use. */
async function bringStock(tx: Transaction, actor: Actor, folder: string): Promise<void> {
  const stock = JSON.parse(readFileSync(path.join(folder, 'stock.json'), 'utf8')) as DemoStock;
  const put = async (request: StockRequest) => {
    const answer = await change(tx, actor, request);
    if (!answer.ok) throw new Error(answer.message);
  };
  for (const { key, vehicle, ...place } of stock.places) {
    const vehicleId = vehicle === undefined ? {} : { vehicleId: demoId(vehicle) };
    const id = demoId(`stock place ${key}`);
    await put({ kind: 'place', id, place: { ...place, id, ...vehicleId } });
  }
  const items = stock.items.map(({ counts, ...item }) => ({
    counts,
    item: { ...item, id: demoId(`stock ${item.name}`) },
  }));
  for (const { key } of stock.places) {
    await put({
      kind: 'import',
      id: demoId(`stock at ${key}`),
      place: demoId(`stock place ${key}`),
      items: items.map(({ item }) => item),
      counts: items.flatMap(({ item, counts }) =>
        counts[key] === undefined ? [] : [{ item: item.id, count: counts[key] }],
      ),
    });
  }
}

async function bringJob(
  tx: Transaction,
  actor: Actor,
  job: DemoJob,
  circuitOf: ReadonlyMap<string, CircuitFile>,
): Promise<void> {
  const id = demoId(`job ${job.key}`);
  const opened = await openJobIn(tx, actor, {
    id,
    vehicleId: demoId(job.vehicle),
    title: job.title,
    openedAt: job.openedAt,
    circuitFileIds: job.circuits,
  });
  if (!opened.ok) throw new Error(`${job.title}: ${opened.message}`);
  const files = job.circuits.map((fileId) => circuitOf.get(fileId)!);
  const bodies = demoBodies(job, mergeCircuits(files).circuit);
  let at = Date.parse(job.openedAt);
  const events = bodies.map((body, order): JobEvent => {
    at += 70_000;
    return {
      id: demoId(`${job.key} ${order}`),
      jobId: id,
      madeAt: new Date(at).toISOString(),
      clientOrder: order,
      body,
    };
  });
  const stored = await appendIn(tx, actor, events);
  if (!stored.ok) throw new Error(`${job.title}: ${stored.message}`);
}

function rawOf(value: ReadingValue): string {
  if ('volts' in value) return value.volts.toFixed(2);
  if ('ohms' in value) return String(value.ohms);
  if ('overLimit' in value) return 'OL';
  if ('amps' in value) return String(value.amps);
  return wordOf(value);
}

/** The log of a demo job, in the order in which a person would have made it. */
function demoBodies(job: DemoJob, circuit: CircuitFile): EventBody[] {
  const bodies: EventBody[] = [{ kind: 'complaint', ...job.complaint }];
  if (job.odometerKm !== undefined) bodies.push({ kind: 'identity', odometerKm: job.odometerKm });
  if (!job.fault || !job.complaint.function || !job.complaint.condition) return bodies;
  const fault = parseFault(job.fault);
  if ('error' in fault) throw new Error(fault.error);
  const session = new DiagnosisSession(circuit, {
    function: job.complaint.function,
    condition: job.complaint.condition,
  });
  const broken = breakCircuit(session.model, [fault]);
  const eventId = () => demoId(`${job.key} ${bodies.length}`);
  const taken: Parameters<DiagnosisSession['assess']>[0]['readings'][number][] = [];
  for (const [functionId, conditionId] of job.checks ?? []) {
    const test = { kind: 'function' as const, function: functionId, condition: conditionId };
    const value = readingOf(broken, test);
    if (!('state' in value)) continue;
    taken.push({ id: eventId(), test, value });
    bodies.push({ kind: 'function-check', function: functionId, condition: conditionId, state: value.state });
  }
  bodies.push({ kind: 'tester-proved', on: 'battery plus and minus post' });
  const opened = new Set<string>();
  for (let count = 0; count < (job.tests ?? 0); count++) {
    const [proposal] = session.assess({ readings: taken, refused: [], opened: [...opened] }).next;
    if (!proposal) break;
    if (proposal.place) opened.add(proposal.place);
    const value = readingOf(broken, proposal.ref);
    taken.push({ id: eventId(), test: proposal.ref, value });
    bodies.push({
      kind: 'reading',
      test: proposal.ref,
      value,
      raw: rawOf(value),
      testerProved: true,
      ...(proposal.place ? { place: proposal.place } : {}),
    });
  }
  if (job.found) {
    const kind = circuit.parts.find((part) => part.id === fault.part)?.kind;
    const { verdict, suspects } = session.assess({ readings: taken, refused: [], opened: [...opened] });
    bodies.push({
      kind: 'found',
      parts: [...(suspects[0]?.parts ?? [fault.part])],
      ...(kind ? { form: { part: fault.part, kind, mode: fault.mode } } : {}),
      strength: verdict.strength ?? 'provisional',
      evidence: [...verdict.evidence],
      ...job.found,
    });
  }
  if (job.repair) bodies.push({ kind: 'repair', ...job.repair });
  for (const [functionId, conditionId] of job.proofs ?? []) {
    const one = session.model.function(functionId);
    const state = session.model.outcome(one, session.model.sound(conditionId));
    bodies.push({ kind: 'proof', function: functionId, condition: conditionId, state, expected: state });
  }
  if (job.watch) bodies.push({ kind: 'watch', ...job.watch });
  if (job.closed) bodies.push({ kind: 'state', state: 'closed' });
  return bodies;
}
