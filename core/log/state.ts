/** A job computed from its log. Nothing here is stored; everything here is derived. */

import type { SubstitutionTable } from '../diagnosis';
import type { SlotDrop } from '../feed';
import type { BodyOf, Condition } from '../format';
import type { WireReading } from '../hands';
import type { SlotReading } from '../limits';
import type { SlotStateEntry } from '../panel';
import { momentOf } from './clock';
import {
  type CheckCell,
  type HandedTo,
  type Identity,
  JobDraft,
  type JobPhoto,
  type Kept,
  type PlanOnJob,
  type ProofCell,
  type Watch,
} from './draft';
import { cellKey, inOrder, type LogEntry, type LogEvent } from './event';
import { foldInto } from './kinds';
import { isProved, type Stage, stageOf } from './progress';

export interface JobState {
  readonly entries: readonly LogEntry[];
  readonly complaint: BodyOf<'complaint'> | null;
  readonly identity: Identity;
  /** By `function|condition`; the latest entry counts. */
  readonly checks: ReadonlyMap<string, CheckCell>;
  /** Settings of key and switches that were seen and that the map has not, as conditions. */
  readonly settings: readonly Condition[];
  readonly readings: readonly (LogEntry & { readonly body: BodyOf<'reading'> })[];
  readonly testerProvedAt: string | null;
  /** Where the work was done; null while nobody has said. */
  readonly workPlace: string | null;
  readonly applianceSetAside: boolean;
  /** What was answered when a second fuse had gone; null while nobody was asked. */
  readonly pluggedIn: BodyOf<'plugged-in'> | null;
  /** Readings at slots that stand, in order. */
  readonly slotReadings: readonly SlotReading[];
  /** Volts across fuses with everything asleep, in order. */
  readonly slotDrops: readonly SlotDrop[];
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
  /** Places where a known good part was tried, by the part they belong to: what sits there, or that it is asked. */
  readonly inPlace: ReadonlyMap<string, 'asked' | 'own' | 'known-good'>;
  /** Whole units tried between vehicles, by name: their cells. */
  readonly units: ReadonlyMap<string, SubstitutionTable['cells']>;
  readonly refused: readonly string[];
  /** Cautions that were answered, by id. */
  readonly cautions: ReadonlyMap<string, BodyOf<'caution-read'>>;
  readonly opened: readonly string[];
  readonly found: (BodyOf<'found'> & { readonly eventId: string }) | null;
  readonly repairs: readonly Kept<'repair'>[];
  /** Temporary repairs that stand. */
  readonly temporaries: readonly Kept<'repair'>[];
  /** Since when the clock of the work runs; null while it stands. */
  readonly clockSince: string | null;
  readonly clockedMinutes: number;
  readonly currents: readonly Kept<'fuse-current'>[];
  /** What else was to be seen since the last repair, by its id. */
  readonly answers: ReadonlyMap<string, Kept<'proof-answer'>>;
  readonly options: readonly BodyOf<'option'>[];
  readonly chosen: (BodyOf<'option-chosen'> & { readonly at: string }) | null;
  readonly boardChecks: ReadonlyMap<string, BodyOf<'board-check'>>;
  /** Appliances in quarantine, by the entry that set them aside. */
  readonly setAside: ReadonlyMap<string, string>;
  readonly handedOver: HandedTo | null;
  /** What was seen since the last repair; what was seen before it says nothing about it. */
  readonly proofs: ReadonlyMap<string, ProofCell>;
  readonly watches: readonly Watch[];
  /** In the order in which they were stated. */
  readonly plans: readonly PlanOnJob[];
  readonly notes: readonly BodyOf<'note'>[];
  readonly state: BodyOf<'state'>['state'];
  /** Who asks for another's word to close it, and when; null while nobody does. */
  readonly askedBy: { readonly person: string; readonly at: string } | null;
  readonly override: string | null;
  /** Said where it ends without a repair. */
  readonly ending: 'made-safe' | 'not-found' | null;
  /** Something was seen since the repair, none of it wrong, and what failed is among it. */
  readonly proved: boolean;
  readonly stage: Stage;
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
  const draft = new JobDraft();
  for (const entry of entries) if (!entry.struck) foldInto(draft, entry.event);
  return { ...draft, ...listsOf(draft), ...madeOf(draft, entries), entries };
}

/** What entries find by their ids while the log is worked through, as pages go through it. */
function listsOf(draft: JobDraft) {
  return {
    settings: [...draft.settings.values()],
    photos: [...draft.photos.values()],
    isolated: [...draft.isolated],
    tags: [...draft.tags.values()],
    swaps: [...draft.swaps.values()],
    afterSwap: [...draft.afterSwap.keys()],
    exchanged: [...draft.exchanged],
    refused: [...draft.refused],
    opened: [...draft.opened],
    watches: [...draft.watches.values()],
    temporaries: [...draft.temporaries.values()],
    options: [...draft.options.values()],
    plans: [...draft.plans.values()],
  };
}

function madeOf(draft: JobDraft, entries: readonly LogEntry[]) {
  const { complaint, repairs, found, state } = draft;
  const readings = entries.flatMap((entry) => {
    const { body } = entry.event;
    return body.kind === 'reading' ? [{ ...entry, body }] : [];
  });
  const asked =
    complaint?.function && complaint.condition ? cellKey(complaint.function, complaint.condition) : null;
  const proved =
    repairs.length > 0 && isProved(asked, new Map([...draft.proofs].map(([key, cell]) => [key, cell.right])));
  const tested = readings.some((entry) => !entry.struck);
  const work = complaint?.work !== undefined;
  const repaired =
    repairs.length > 0 || [...draft.plans.values()].some(({ ended }) => ended?.how === 'carried');
  const stage = stageOf({ state, repaired, proved, found: found !== null, tested, work });
  return { readings, proved, stage };
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
    lastAt: last ? momentOf(last) : openedAt,
  };
}

/** The condition in which key and switches were seen to stand at the last reading; null where nobody has seen them. */
export function conditionSeenLast(job: Pick<JobState, 'readings'>): string | null {
  const last = job.readings.findLast(
    ({ struck, body }) => !struck && 'condition' in body.test && body.setUpSeen !== false,
  );
  return last && 'condition' in last.body.test ? last.body.test.condition : null;
}
