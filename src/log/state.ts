/** A job computed from its log. Nothing here is stored; everything here is derived. */

import { type TakenReading, testId, UNSURE } from '#core/diagnosis';
import type { BodyOf, EventBody, FunctionStateName } from '#core/format';
import type { WireReading } from '#core/hands';
import type { SlotReading } from '#core/limits';
import type { SlotStateEntry } from '#core/panel';

/** An event as the screens hold it: confirmed by the server (`seq`) or still on its way. */
export interface LogEvent {
  readonly id: string;
  readonly seq: number | null;
  readonly person: string;
  readonly madeAt: string;
  readonly clientOrder: number;
  readonly body: EventBody;
}

export interface LogEntry {
  readonly event: LogEvent;
  /** Struck by a later correction, with its reason. */
  readonly struck: { readonly reason: string } | null;
}

export type Stage = 'complaint' | 'testing' | 'found' | 'repaired' | 'proved' | 'closed' | 'waiting';

export interface CheckCell {
  readonly eventId: string;
  readonly state: FunctionStateName;
}

/** What was seen of a function after a repair. */
export interface ProofCell extends CheckCell {
  /** Whether it is what it should be. */
  readonly right: boolean;
}

/** Something to be watched, and what was found when it was dealt with. */
export type Watch = BodyOf<'watch'> & {
  readonly eventId: string;
  readonly done: { readonly words: string; readonly at: string; readonly person: string } | null;
};

export type JobPhoto = BodyOf<'photo'> & {
  readonly eventId: string;
  readonly marks: BodyOf<'photo-marks'>['marks'];
};

export interface JobState {
  readonly entries: readonly LogEntry[];
  readonly complaint: BodyOf<'complaint'> | null;
  readonly identity: {
    readonly nominalVolts: number | null;
    readonly odometerKm: number | null;
    readonly fuel: string;
    readonly options: string;
    readonly alterations: string;
  };
  /** By `function|condition`; the latest entry counts. */
  readonly checks: ReadonlyMap<string, CheckCell>;
  readonly readings: readonly (LogEntry & { readonly body: BodyOf<'reading'> })[];
  readonly testerProvedAt: string | null;
  readonly applianceSetAside: boolean;
  /** Readings at slots that stand, in order. */
  readonly slotReadings: readonly SlotReading[];
  readonly slotStates: readonly SlotStateEntry[];
  /** Readings at ends of wires that stand, in order. */
  readonly wireReadings: readonly WireReading[];
  readonly damages: readonly (BodyOf<'damage'> & { readonly eventId: string })[];
  readonly photos: readonly JobPhoto[];
  /** Steps of isolation that stand done. */
  readonly isolated: readonly BodyOf<'isolation'>['step'][];
  readonly begun: readonly BodyOf<'task-begun'>[];
  readonly tags: readonly BodyOf<'plug-tag'>[];
  /** Functions of exchanged relays that have not been seen to work since they were put back. */
  readonly afterSwap: readonly string[];
  /** Every relay that was ever exchanged in this job. */
  readonly exchanged: readonly string[];
  /** Relays that still stand in each other's places. */
  readonly swaps: readonly (BodyOf<'swapped'> & { readonly eventId: string })[];
  readonly refused: readonly string[];
  readonly opened: readonly string[];
  readonly found: (BodyOf<'found'> & { readonly eventId: string }) | null;
  readonly repairs: readonly BodyOf<'repair'>[];
  /** What was seen since the last repair; what was seen before it says nothing about it. */
  readonly proofs: ReadonlyMap<string, ProofCell>;
  readonly watches: readonly Watch[];
  readonly notes: readonly BodyOf<'note'>[];
  readonly state: 'open' | 'waiting' | 'closed';
  readonly override: string | null;
  /** Something was seen since the repair, none of it wrong, and what failed is among it. */
  readonly proved: boolean;
  readonly stage: Stage;
}

export function cellKey(functionId: string, conditionId: string): string {
  return `${functionId}|${conditionId}`;
}

/** Confirmed events in the server's order, then those on their way in the client's. */
export function inOrder(events: readonly LogEvent[]): LogEvent[] {
  return events
    .slice()
    .sort(
      (one, other) =>
        (one.seq ?? Number.MAX_SAFE_INTEGER) - (other.seq ?? Number.MAX_SAFE_INTEGER) ||
        one.clientOrder - other.clientOrder,
    );
}

export function jobState(events: readonly LogEvent[]): JobState {
  const ordered = inOrder(events);
  const struck = new Map<string, string>();
  for (const { body } of ordered) if (body.kind === 'correction') struck.set(body.of, body.reason ?? '');
  const entries = ordered.map(
    (event): LogEntry => ({
      event,
      struck: struck.has(event.id) ? { reason: struck.get(event.id) ?? '' } : null,
    }),
  );
  const identity: { -readonly [K in keyof JobState['identity']]: JobState['identity'][K] } = {
    nominalVolts: null,
    odometerKm: null,
    fuel: '',
    options: '',
    alterations: '',
  };
  const checks = new Map<string, CheckCell>();
  const proofs = new Map<string, ProofCell>();
  const readings: (LogEntry & { body: BodyOf<'reading'> })[] = [];
  const slotReadings: SlotReading[] = [];
  const slotStates: SlotStateEntry[] = [];
  const wireReadings: WireReading[] = [];
  const photos = new Map<string, JobPhoto>();
  const isolated = new Set<BodyOf<'isolation'>['step']>();
  const begun: BodyOf<'task-begun'>[] = [];
  const tags = new Map<string, BodyOf<'plug-tag'>>();
  const afterSwap = new Map<string, 'swapped' | 'restored'>();
  const swaps = new Map<string, BodyOf<'swapped'> & { eventId: string }>();
  const exchanged = new Set<string>();
  const damages: (BodyOf<'damage'> & { eventId: string })[] = [];
  const refused = new Set<string>();
  const opened = new Set<string>();
  const repairs: BodyOf<'repair'>[] = [];
  const watches = new Map<string, Watch>();
  const notes: BodyOf<'note'>[] = [];
  let complaint: JobState['complaint'] = null;
  let found: JobState['found'] = null;
  let testerProvedAt: string | null = null;
  let applianceSetAside = false;
  let state: JobState['state'] = 'open';
  let override: string | null = null;
  for (const entry of entries) {
    const { body, id } = entry.event;
    if (body.kind === 'reading') readings.push({ ...entry, body });
    if (entry.struck) continue;
    switch (body.kind) {
      case 'complaint':
        complaint = body;
        break;
      case 'identity':
        identity.nominalVolts = body.nominalVolts ?? identity.nominalVolts;
        identity.odometerKm = body.odometerKm ?? identity.odometerKm;
        identity.fuel = body.fuel ?? identity.fuel;
        identity.options = body.options ?? identity.options;
        identity.alterations = body.alterations ?? identity.alterations;
        break;
      case 'function-check':
        if (body.state === 'not-tried') checks.delete(cellKey(body.function, body.condition));
        else checks.set(cellKey(body.function, body.condition), { eventId: id, state: body.state });
        break;
      case 'reading':
        if (body.place) opened.add(body.place);
        break;
      case 'slot-reading':
        for (const { end, value } of body.ends) {
          const { panel, slot, state: keyState, fuseOut, testerProved } = body;
          slotReadings.push({ id, panel, slot, end, value, state: keyState, fuseOut, testerProved });
        }
        break;
      case 'wire-reading': {
        const { kind: _kind, ...read } = body;
        wireReadings.push({ ...read, id });
        break;
      }
      case 'slot-state': {
        const { kind: _kind, ...seen } = body;
        slotStates.push({ ...seen, id, at: entry.event.madeAt, person: entry.event.person });
        break;
      }
      case 'photo':
        photos.set(body.photo, { ...body, eventId: id, marks: [] });
        break;
      case 'photo-marks': {
        const photo = photos.get(body.photo);
        if (photo) photos.set(body.photo, { ...photo, marks: body.marks });
        break;
      }
      case 'isolation':
        if (body.done) isolated.add(body.step);
        else isolated.delete(body.step);
        break;
      case 'task-begun':
        begun.push(body);
        break;
      case 'plug-tag':
        tags.set(`${body.panel} ${body.plug}`, body);
        break;
      case 'swapped':
        swaps.set(id, { ...body, eventId: id });
        for (const one of [body.one, body.other]) exchanged.add(one);
        for (const one of body.functions) {
          afterSwap.set(one, 'swapped');
          // What was seen before says nothing about the relays as they stand afterwards.
          for (const key of [...proofs.keys()]) if (key.startsWith(`${one}|`)) proofs.delete(key);
        }
        break;
      case 'swap-restored':
        for (const one of swaps.get(body.of)?.functions ?? []) afterSwap.set(one, 'restored');
        swaps.delete(body.of);
        break;
      case 'damage':
        damages.push({ ...body, eventId: id });
        break;
      case 'tester-proved':
        testerProvedAt = entry.event.madeAt;
        break;
      case 'appliance-set-aside':
        applianceSetAside = true;
        break;
      case 'test-refused':
        refused.add(testId(body.test));
        break;
      case 'found':
        found = { ...body, eventId: id };
        break;
      case 'repair':
        repairs.push(body);
        proofs.clear();
        break;
      case 'proof':
        proofs.set(cellKey(body.function, body.condition), {
          eventId: id,
          state: body.state,
          right: body.state === (body.expected ?? expectedOf(complaint, body)),
        });
        if (body.state === 'works' && afterSwap.get(body.function) === 'restored')
          afterSwap.delete(body.function);
        break;
      case 'watch':
        watches.set(id, { ...body, eventId: id, done: null });
        break;
      case 'watch-done': {
        const watch = watches.get(body.of);
        const done = { words: body.words, at: entry.event.madeAt, person: entry.event.person };
        if (watch) watches.set(body.of, { ...watch, done });
        break;
      }
      case 'note':
        notes.push(body);
        break;
      case 'state':
        state = body.state;
        override = body.override ?? null;
        break;
      case 'correction':
      case 'caution-read':
        break;
    }
  }
  const proved =
    repairs.length > 0 &&
    isProved(
      complaint?.function && complaint.condition ? cellKey(complaint.function, complaint.condition) : null,
      new Map([...proofs].map(([key, cell]) => [key, cell.right])),
    );
  const stage = stageOf({
    state,
    repaired: repairs.length > 0,
    proved,
    found: found !== null,
    tested: readings.some((entry) => !entry.struck),
  });
  return {
    entries,
    complaint,
    identity,
    checks,
    readings,
    testerProvedAt,
    applianceSetAside,
    slotReadings,
    slotStates,
    wireReadings,
    damages,
    photos: [...photos.values()],
    isolated: [...isolated],
    begun,
    tags: [...tags.values()],
    swaps: [...swaps.values()],
    afterSwap: [...afterSwap.keys()],
    exchanged: [...exchanged],
    refused: [...refused],
    opened: [...opened],
    found,
    repairs,
    proofs,
    watches: [...watches.values()],
    notes,
    state,
    override,
    proved,
    stage,
  };
}

/** How far a job has come. */
export function stageOf(job: {
  readonly state: 'open' | 'waiting' | 'closed';
  readonly repaired: boolean;
  readonly proved: boolean;
  readonly found: boolean;
  readonly tested: boolean;
}): Stage {
  if (job.state !== 'open') return job.state;
  if (job.repaired) return job.proved ? 'proved' : 'repaired';
  if (job.found) return 'found';
  return job.tested ? 'testing' : 'complaint';
}

/** What a function should do after a repair, where the entry does not say it: entries of an earlier version. */
export function expectedOf(
  complaint: Pick<BodyOf<'complaint'>, 'function' | 'condition' | 'state'> | null,
  proof: { readonly function: string; readonly condition: string },
): FunctionStateName {
  const asks = complaint?.function === proof.function && complaint.condition === proof.condition;
  return asks && complaint.state === 'on-when-off' ? 'dead' : 'works';
}

/** Something was seen since the repair, nothing of it was wrong, and what failed (`asked`) is among it. */
export function isProved(asked: string | null, proofs: ReadonlyMap<string, boolean>): boolean {
  if (proofs.size === 0 || (asked !== null && !proofs.has(asked))) return false;
  return [...proofs.values()].every((right) => right);
}

/**
 * What the diagnosis reasons from: the complaint, the function checks and the readings that stand, in the
 * order in which they were made.
 */
export function takenReadings(job: JobState): TakenReading[] {
  const taken: TakenReading[] = [];
  const mended = mendedParts(job);
  const latest = new Map([...job.checks].map(([key, cell]) => [cell.eventId, key]));
  for (const { event, struck } of job.entries) {
    if (struck) continue;
    const { body } = event;
    const before = mended.before(event.id);
    if (body.kind === 'proof' && mended.goesOn) {
      taken.push({
        id: event.id,
        test: { kind: 'function', function: body.function, condition: body.condition },
        value: { state: body.state },
        ...before,
      });
    }
    if (body.kind === 'complaint' && body === job.complaint && body.function && body.condition) {
      // What was seen at the vehicle stands in for what was reported.
      if (job.checks.has(cellKey(body.function, body.condition))) continue;
      taken.push({
        id: event.id,
        test: { kind: 'function', function: body.function, condition: body.condition },
        value: { state: body.state ?? 'dead' },
        sure: UNSURE,
        ...before,
      });
    } else if (body.kind === 'function-check' && latest.has(event.id)) {
      taken.push({
        id: event.id,
        test: { kind: 'function', function: body.function, condition: body.condition },
        value: { state: body.state },
        ...before,
      });
    } else if (body.kind === 'reading') {
      taken.push({ id: event.id, test: body.test, value: body.value, ...surenessOf(body), ...before });
    }
  }
  return taken;
}

/**
 * What was mended while the complaint remained: readings from before the repair were taken on a circuit that had
 * that fault as well. As long as the repair has not been seen to fail, nothing is set apart.
 */
function mendedParts(job: JobState): {
  goesOn: boolean;
  before: (eventId: string) => Pick<TakenReading, 'before'>;
} {
  const { complaint } = job;
  const places = new Map<string, number>();
  const mends: { at: number; parts: readonly string[] }[] = [];
  let repairAt = -1;
  let latest: readonly string[] = [];
  job.entries.forEach(({ event, struck }, index) => {
    places.set(event.id, index);
    if (struck) return;
    const { body } = event;
    if (body.kind === 'found') latest = body.parts;
    if (body.kind === 'repair') repairAt = index;
    const asks =
      body.kind === 'proof' &&
      body.function === complaint?.function &&
      body.condition === complaint.condition;
    if (!asks || repairAt < 0) return;
    const remains = complaint?.state === 'on-when-off' ? body.state === 'works' : body.state !== 'works';
    if (remains && !mends.some((mend) => mend.at === repairAt)) mends.push({ at: repairAt, parts: latest });
  });
  return {
    goesOn: mends.length > 0,
    before: (eventId) => {
      const at = places.get(eventId) ?? 0;
      const parts = [...new Set(mends.filter((mend) => mend.at > at).flatMap((mend) => mend.parts))];
      return parts.length > 0 ? { before: parts } : {};
    },
  };
}

/** What was made sure of; nothing where all was. */
function surenessOf({ testerProved, setUpSeen = true }: BodyOf<'reading'>): Pick<TakenReading, 'sure'> {
  if (testerProved && setUpSeen) return {};
  // Proving the tester on a live point and its earth proves both.
  return { sure: { tester: testerProved, reference: testerProved, setUp: setUpSeen } };
}

export interface JobSummary {
  readonly stage: Stage;
  readonly complaint: string;
  readonly found: string | null;
  readonly readings: number;
  readonly lastSeq: number;
  readonly lastAt: string;
}

/** The row that lists read; written beside the events and rebuilt by a test. Expects confirmed events. */
export function summarise(events: readonly LogEvent[], openedAt: string): JobSummary {
  const job = jobState(events);
  const last = job.entries[job.entries.length - 1]?.event;
  return {
    stage: job.stage,
    complaint: job.complaint?.words ?? '',
    found: job.found?.fault ?? null,
    readings: job.readings.filter((entry) => !entry.struck).length,
    lastSeq: last?.seq ?? 0,
    lastAt: last?.madeAt ?? openedAt,
  };
}
