/**
 * A job of the demo, brought in by the log that people use. Readings of half-done and closed jobs come from the model of
 * its circuit with the fault that the job turned out to have; days are counted from the day on which the demo comes in.
 */
import { mergeCircuits } from '#core/circuit';
import { DiagnosisSession, readingOf, requiredProofs } from '#core/diagnosis';
import { breakCircuit, parseFault } from '#core/faults';
import {
  type BodyOf,
  type CircuitFile,
  checkEvent,
  type EventBody,
  type JobEvent,
  type ReadingValue,
} from '#core/format';
import { jobState, type LogEvent, owedProofs, seenBefore, touchedParts, wordOf } from '#core/log';
import { CircuitModel } from '#core/network';
import { type LoadWord, PATTERNS } from '#core/notation';
import type { Actor } from '@/access';
import { now } from '@/clock/now';
import type { Transaction } from '@/db/client';
import { appendIn, openJobIn } from '@/features/jobs/server';
import { addPattern } from '@/features/vehicles/server';
import { demoId } from './demoId';

type Seen = readonly [functionId: string, conditionId: string];

export interface DemoJob {
  key: string;
  vehicle: string;
  title: string;
  /** Days before the demo comes in, and the time of that day (UTC). */
  daysAgo: number;
  at: string;
  /** Who worked on it; the first of the people where it is not said. */
  by?: string;
  /** Circuits of the vehicle by their ids; or the pattern that was put on it. */
  circuits?: string[];
  pattern?: { id: string; load: string; kind: LoadWord };
  complaint: Omit<BodyOf<'complaint'>, 'kind'>;
  odometerKm?: number;
  fault?: string;
  checks?: Seen[];
  tests?: number;
  found?: Pick<BodyOf<'found'>, 'fault' | 'cause' | 'causeWords' | 'openedBy'>;
  repair?: Omit<BodyOf<'repair'>, 'kind'>;
  /** Everything that has to be seen is seen, and as it should be. */
  proved?: boolean;
  /** Readings for what else is owed after the repair, by its id. */
  owed?: Record<string, number>;
  watch?: Omit<BodyOf<'watch'>, 'kind'>;
  /** Entries besides, before the job is closed. */
  entries?: EventBody[];
  /** Closed; with a reason or an ending where something was missing. */
  closed?: boolean | Omit<BodyOf<'state'>, 'kind' | 'state'>;
}

const DAY_MS = 86_400_000;
const STEP_MS = 70_000;

/** "+14" or "-5" as the day so many days from now; whatever else stays. */
function daysIn<T>(value: T): T {
  if (typeof value === 'string' && /^[+-]\d+$/.test(value)) {
    return new Date(now().getTime() + Number(value) * DAY_MS).toISOString().slice(0, 10) as T;
  }
  if (Array.isArray(value)) return value.map(daysIn) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, one]) => [key, key === 'due' ? daysIn(one) : nested(one)]),
  ) as T;
}
const nested = (value: unknown): unknown =>
  value !== null && typeof value === 'object' ? daysIn(value) : value;

/** Names of the stock and of jobs in place of their ids: "stock Mini blade 15 A", "entry 12". */
function idsIn<T>(job: string, value: T): T {
  const text = JSON.stringify(value)
    .replace(/"@(stock [^"]+)"/g, (_all, name: string) => JSON.stringify(demoId(name)))
    .replace(/"@entry (\d+)"/g, (_all, order: string) => JSON.stringify(demoId(`${job} ${order}`)));
  return JSON.parse(text) as T;
}

export async function bringJob(
  tx: Transaction,
  actor: Actor,
  written: DemoJob,
  circuitOf: ReadonlyMap<string, CircuitFile>,
): Promise<void> {
  const job = idsIn(written.key, daysIn(written));
  const id = demoId(`job ${job.key}`);
  const vehicleId = demoId(job.vehicle);
  const openedAt = `${new Date(now().getTime() - job.daysAgo * DAY_MS).toISOString().slice(0, 10)}T${job.at}:00.000Z`;
  const made = job.pattern ? await byPattern(tx, actor, vehicleId, job.pattern) : null;
  const fileIds = made ? [made.circuit.id] : (job.circuits ?? []);
  const opened = await openJobIn(tx, actor, {
    id,
    vehicleId,
    title: job.title,
    openedAt,
    circuitFileIds: fileIds,
  });
  if (!opened.ok) throw new Error(`${job.title}: ${opened.message}`);
  const files = made ? [made.circuit] : fileIds.map((fileId) => circuitOf.get(fileId)!);
  const complaint = made
    ? { ...job.complaint, function: made.function, condition: made.condition }
    : job.complaint;
  const named = made ? withPartIds(job, made.partIds) : job;
  const log = new DemoLog({ ...named, complaint }, id, Date.parse(openedAt), actor.personName);
  log.write(files.length > 0 ? mergeCircuits(files).circuit : null);
  // Checked as the entries of a page are.
  for (const event of log.events) {
    const checked = checkEvent(event);
    if (!checked.ok) throw new Error(`${job.title}: ${checked.problems.map((one) => one.message).join(' ')}`);
  }
  const stored = await appendIn(tx, actor, log.events);
  if (!stored.ok) throw new Error(`${job.title}: ${stored.message}`);
}

async function byPattern(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  { id, load, kind }: NonNullable<DemoJob['pattern']>,
) {
  const pattern = PATTERNS.find((one) => one.id === id);
  if (!pattern) throw new Error(`There is no pattern ${id}.`);
  const added = await addPattern(tx, actor, vehicleId, pattern, { load, kind });
  if (!added.ok) throw new Error(added.message);
  return added;
}

/** Parts of a pattern by the ids that they got on the vehicle. */
function withPartIds(job: DemoJob, ids: ReadonlyMap<string, string>): DemoJob {
  const own = (id: string) => ids.get(id) ?? id;
  const [part = '', ...how] = (job.fault ?? '').split(':');
  return {
    ...job,
    ...(job.fault ? { fault: [own(part), ...how].join(':') } : {}),
    ...(job.repair
      ? {
          repair: {
            ...job.repair,
            lines: (job.repair.lines ?? []).map((line) => ({
              ...line,
              ...(line.part ? { part: own(line.part) } : {}),
            })),
          },
        }
      : {}),
    owed: Object.fromEntries(
      Object.entries(job.owed ?? {}).map(([item, value]) => {
        const [what = '', of] = item.split(':');
        return [of === undefined ? what : `${what}:${own(of)}`, value];
      }),
    ),
  };
}

function rawOf(value: ReadingValue): string {
  if ('volts' in value) return value.volts.toFixed(2);
  if ('ohms' in value) return String(value.ohms);
  if ('overLimit' in value) return 'OL';
  if ('amps' in value) return String(value.amps);
  return wordOf(value);
}

/** The log of a demo job, in the order in which a person would have made it. */
class DemoLog {
  readonly events: JobEvent[] = [];

  constructor(
    private readonly job: DemoJob,
    private readonly id: string,
    private readonly from: number,
    private readonly person: string,
  ) {}

  write(circuit: CircuitFile | null): void {
    const { job } = this;
    this.add({ kind: 'complaint', ...job.complaint });
    if (job.odometerKm !== undefined) this.add({ kind: 'identity', odometerKm: job.odometerKm });
    if (circuit && job.fault && job.complaint.function && job.complaint.condition) {
      this.trace(circuit, { function: job.complaint.function, condition: job.complaint.condition });
    }
    if (job.repair) this.add({ kind: 'repair', ...job.repair });
    if (job.proved && circuit) this.prove(circuit);
    if (job.watch) this.add({ kind: 'watch', ...job.watch });
    for (const body of job.entries ?? []) this.add(body);
    if (job.closed) {
      this.add({ kind: 'state', state: 'closed', ...(job.closed === true ? {} : job.closed) });
    }
  }

  private nextId(): string {
    return demoId(`${this.job.key} ${this.events.length}`);
  }

  private add(body: EventBody): void {
    this.events.push({
      id: this.nextId(),
      jobId: this.id,
      madeAt: new Date(this.from + (this.events.length + 1) * STEP_MS).toISOString(),
      clientOrder: this.events.length,
      body,
    });
  }

  private get state() {
    return jobState(
      this.events.map(
        ({ id, madeAt, clientOrder, body }, index): LogEvent => ({
          id,
          madeAt,
          clientOrder,
          body,
          seq: index + 1,
          person: this.person,
        }),
      ),
    );
  }

  private trace(circuit: CircuitFile, complaint: { function: string; condition: string }): void {
    const { job } = this;
    const fault = parseFault(job.fault!);
    if ('error' in fault) throw new Error(fault.error);
    const session = new DiagnosisSession(circuit, complaint);
    const broken = breakCircuit(session.model, [fault]);
    const taken: Parameters<DiagnosisSession['assess']>[0]['readings'][number][] = [];
    for (const [functionId, conditionId] of job.checks ?? []) {
      const test = { kind: 'function' as const, function: functionId, condition: conditionId };
      const value = readingOf(broken, test);
      if (!('state' in value)) continue;
      taken.push({ id: this.nextId(), test, value });
      this.add({ kind: 'function-check', function: functionId, condition: conditionId, state: value.state });
    }
    this.add({ kind: 'tester-proved', on: 'battery plus and minus post' });
    const opened = new Set<string>();
    for (let count = 0; count < (job.tests ?? 0); count++) {
      const [proposal] = session.assess({ readings: taken, refused: [], opened: [...opened] }).next;
      if (!proposal) break;
      if (proposal.place) opened.add(proposal.place);
      const value = readingOf(broken, proposal.ref);
      taken.push({ id: this.nextId(), test: proposal.ref, value });
      this.add({
        kind: 'reading',
        test: proposal.ref,
        value,
        raw: rawOf(value),
        testerProved: true,
        ...(proposal.place ? { place: proposal.place } : {}),
      });
    }
    if (!job.found) return;
    const kind = circuit.parts.find((part) => part.id === fault.part)?.kind;
    const { verdict, suspects } = session.assess({ readings: taken, refused: [], opened: [...opened] });
    const lead = suspects[0]?.parts ?? [];
    this.add({
      kind: 'found',
      parts: lead.length > 0 ? [...lead] : [fault.part],
      ...(kind ? { form: { part: fault.part, kind, mode: fault.mode } } : {}),
      strength: verdict.strength ?? 'provisional',
      evidence: [...verdict.evidence],
      ...job.found,
    });
  }

  /** Every function that has to be seen, as it is on a sound circuit, and whatever else is owed. */
  private prove(circuit: CircuitFile): void {
    const { complaint } = this.job;
    if (!complaint.function || !complaint.condition) return;
    const model = new CircuitModel(circuit);
    const asked = { function: complaint.function, condition: complaint.condition };
    const before = this.state;
    const proofs = requiredProofs(model, asked, touchedParts(before), seenBefore(before));
    for (const one of proofs) {
      this.add({
        kind: 'proof',
        function: one.function,
        condition: one.condition,
        state: one.expected,
        expected: one.expected,
      });
    }
    for (const item of owedProofs(this.state, circuit, proofs)) {
      const value = this.job.owed?.[item.id];
      if (item.asks && value === undefined)
        throw new Error(`${this.job.title}: nothing is read for ${item.id}.`);
      if (item.fuse && value !== undefined) {
        const { part: fuse, ratingAmps } = item.fuse;
        this.add({ kind: 'fuse-current', fuse, phase: 'running', amps: value, ratingAmps, how: 'measured' });
      }
      this.add({
        kind: 'proof-answer',
        what: item.id,
        answer: 'done',
        words: '',
        ...(value === undefined ? {} : item.asks?.unit === 'V' ? { volts: value } : { amps: value }),
      });
    }
  }
}
