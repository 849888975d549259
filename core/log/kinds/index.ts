/** Every kind of entry, by the name that stands in it. A kind more is a file more, its shape in `format/entries/`, and a line here and in `format/jobSchema.ts`. */
import type { BodyOf, CircuitFile, EventBody, EventKind } from '../../format';
import type { JobDraft } from '../draft';
import type { LogEvent } from '../event';
import type { EventKindOf } from '../kind';
import type { Kept, Progress } from '../progress';
import { complaint, conditionSet, functionCheck, identity } from './complaint';
import {
  found,
  fuseCurrent,
  handedOver,
  proof,
  proofAnswer,
  state,
  watch,
  watchDone,
  watchSnoozed,
} from './conclusion';
import { isolation, partInPlace, swapped, swapRestored, taskBegun, unitTried, wireReading } from './hands';
import { cautionRead, correction, note, workPlace } from './notes';
import { boardCheck, option, optionChosen } from './options';
import { photo, photoMarks } from './photos';
import { findingKept, plan, planEnded, planStep } from './plans';
import {
  applianceReleased,
  applianceSetAside,
  pluggedIn,
  reading,
  testerProved,
  testRefused,
} from './reading';
import { repair, temporaryEnded, workClock } from './repair';
import { damage, plugTag, slotDrop, slotReading, slotState } from './slots';

const KINDS: { readonly [K in EventKind]: EventKindOf<BodyOf<K>> } = {
  complaint,
  identity,
  'function-check': functionCheck,
  'condition-set': conditionSet,
  reading,
  'slot-reading': slotReading,
  'slot-drop': slotDrop,
  'slot-state': slotState,
  photo,
  'photo-marks': photoMarks,
  isolation,
  'task-begun': taskBegun,
  'wire-reading': wireReading,
  'plug-tag': plugTag,
  swapped,
  'swap-restored': swapRestored,
  'part-in-place': partInPlace,
  'unit-tried': unitTried,
  damage,
  correction,
  'tester-proved': testerProved,
  'appliance-set-aside': applianceSetAside,
  'appliance-released': applianceReleased,
  'plugged-in': pluggedIn,
  'test-refused': testRefused,
  'caution-read': cautionRead,
  'work-place': workPlace,
  found,
  'fuse-current': fuseCurrent,
  option,
  'option-chosen': optionChosen,
  'board-check': boardCheck,
  repair,
  'temporary-ended': temporaryEnded,
  clock: workClock,
  proof,
  'proof-answer': proofAnswer,
  watch,
  'watch-snoozed': watchSnoozed,
  'watch-done': watchDone,
  'handed-over': handedOver,
  plan,
  'plan-step': planStep,
  'finding-kept': findingKept,
  'plan-ended': planEnded,
  note,
  state,
};

const kindOf = (kind: EventKind) => KINDS[kind] as EventKindOf<EventBody>;

export const EVENT_KINDS = Object.keys(KINDS) as readonly EventKind[];

/** What an entry that stands does to the job. */
export function foldInto(job: JobDraft, event: LogEvent): void {
  kindOf(event.body.kind).fold?.(job, event.body, event);
}

/** One line for an entry of the log. */
export function eventWords(circuit: CircuitFile | null, body: EventBody): string {
  return kindOf(body.kind).words(body, circuit);
}

/** The row of a job behind one more entry that stands. */
export function stepOf(row: Progress, body: EventBody): Progress {
  return kindOf(body.kind).step?.(row, body) ?? row;
}

/** Rows of its own that an entry leaves, in the order in which they are written. */
export function keptOf(body: EventBody): readonly Kept[] {
  return [kindOf(body.kind).keeps?.(body) ?? []].flat();
}

/** Whether striking such an entry brings back what stood before it. */
export function standsBehind(kind: EventKind): boolean {
  return kindOf(kind).standsBehind === true;
}
