/** How far the work of a plan is: what may be done next, what is barred and why, and in what state it leaves the vehicle. */

import { supplySide } from '../feed';
import type { CircuitFile, Panel } from '../format';
import { type CutGate, cutGate, type IsolationStep, type WireReading } from '../hands';
import { KEY_STATE_WORDS, type KeyState, type SlotReading } from '../limits';
import { playPlan } from './apply';
import { type Examined, examinePlayed, type Finding } from './findings';
import { slotOf } from './slotOf';
import { editsMadeBy, STAGE_WORDS, STAGES, type Stage, type WorkStep } from './steps';

/** How a step was dealt with. */
export interface StepDone {
  readonly how: 'done' | 'override' | 'wrong';
  readonly reason?: string;
  readonly value?: number;
  /** What it left on the vehicle. */
  readonly leaves?: string;
}

/** What the job knows besides the steps. */
export interface WorkFacts {
  readonly done: ReadonlyMap<string, StepDone>;
  /** Dangers that stay, by their key: somebody has said why. */
  readonly kept: ReadonlySet<string>;
  readonly isolated: readonly IsolationStep[];
  readonly testerProved: boolean;
  readonly wireReadings: readonly WireReading[];
  readonly slotReadings: readonly SlotReading[];
  readonly panels: readonly Panel[];
}

export interface StepStanding {
  readonly step: WorkStep;
  readonly done: boolean;
  /** What it asks is there, and it was not only passed. */
  readonly met: boolean;
  /** Answered, and not as it should be. */
  readonly wrong: boolean;
  readonly overridden: string | null;
  /** Why it may not be done yet, in words; null where it may. */
  readonly barred: string | null;
  /** What was read so far, or what is still missing of it; empty where there is nothing to say. */
  readonly says: string;
}

/** States in which both holes of a slot are read before it is tapped. */
const HOLE_STATES: readonly KeyState[] = ['off', 'run'];

/** Whether both ends of a wire were read in every state; where it is live its feed comes off first, which the plan does. */
export function endsRead(
  wire: string,
  facts: Pick<WorkFacts, 'wireReadings'>,
  nominalVolts: number,
): CutGate & { readonly read: boolean } {
  const gate = cutGate(
    facts.wireReadings.filter((one) => one.wire === wire),
    ['key-off', 'earthed-pole-off', 'dead-reading'],
    nominalVolts,
  );
  return { ...gate, read: gate.missing.length === 0 };
}

const spoken = (list: readonly { readonly end: 'a' | 'b'; readonly state: KeyState }[]) =>
  (['a', 'b'] as const)
    .flatMap((end) => {
      const states = list
        .filter((one) => one.end === end)
        .map(({ state }) => KEY_STATE_WORDS[state].toLowerCase());
      return states.length === 0 ? [] : [`end ${end} (${states.join(', ')})`];
    })
    .join(' and ');

/** So many readings that are missing are not listed one by one. */
const MANY = 5;

/** What the readings at both ends of a wire mean together. */
export function endsWords(gate: CutGate): string {
  const a = gate.live.some(({ end }) => end === 'a');
  const b = gate.live.some(({ end }) => end === 'b');
  if (a && b)
    return `Fed from both ends, in these states: ${spoken(gate.live)}. Each end gets its own cap, and its own feed is taken off.`;
  if (a || b) return `Live: ${spoken(gate.live)}. Its feed comes off before it is cut.`;
  if (gate.missing.length === 0) return 'Dead at both ends in every state.';
  return gate.missing.length > MANY
    ? `${gate.missing.length} readings are missing: both ends, each in every state.`
    : `Still to be read: ${spoken(gate.missing)}.`;
}

/** Of one step: whether what it asks is there. */
function met(
  step: WorkStep,
  facts: WorkFacts,
  circuit: CircuitFile,
): { readonly met: boolean; readonly says: string } {
  const { asks } = step;
  switch (asks.by) {
    case 'tester':
      return { met: facts.testerProved, says: '' };
    case 'isolation':
      // It was isolated for this work, also after the power came back. Dead is a reading of this work alone.
      return {
        met:
          facts.done.get(step.id)?.how === 'done' ||
          (asks.on && asks.step !== 'dead-reading' && facts.isolated.includes(asks.step)),
        says: '',
      };
    case 'wire-ends': {
      const gate = endsRead(asks.wire, facts, circuit.nominalVolts);
      return { met: gate.read, says: endsWords(gate) };
    }
    case 'holes': {
      const slot = slotOf(circuit, facts.panels, asks.fuse);
      if (!slot) return { met: facts.done.get(step.id)?.how === 'done', says: '' };
      const at = circuit.parts.find(({ id }) => id === asks.fuse)!.slot!;
      const readings = facts.slotReadings.filter((one) => one.panel === at.panel && one.slot === at.slot);
      const side = supplySide(slot, readings, HOLE_STATES, circuit.nominalVolts);
      return { met: side.stands === 'proved', says: side.sentence };
    }
    default:
      return { met: facts.done.get(step.id)?.how === 'done', says: '' };
  }
}

const lower = (words: string) => `${words[0]?.toLowerCase() ?? ''}${words.slice(1)}`;

/** Every step with what stands between it and being done. */
export function standingOf(
  steps: readonly WorkStep[],
  facts: WorkFacts,
  circuit: CircuitFile,
): StepStanding[] {
  const looked = steps.map((step) => {
    const said = facts.done.get(step.id);
    const { met: isMet, says } = met(step, facts, circuit);
    const overridden = said?.how === 'override' ? (said.reason ?? '') : null;
    return {
      step,
      met: isMet,
      done: isMet || overridden !== null,
      wrong: said?.how === 'wrong',
      overridden,
      says,
    };
  });
  return looked.map((one): StepStanding => {
    const stage = STAGES.indexOf(one.step.stage);
    const first = looked.find((other) => STAGES.indexOf(other.step.stage) < stage && !other.done);
    let barred = first ? `First: ${lower(STAGE_WORDS[first.step.stage])}. ${first.step.words}` : null;
    barred ??= noLongerIsolated(one.step, steps, facts);
    // It says something only where the other hole was read dead: a load side that is fed from elsewhere is live too.
    if (barred === null && one.step.stage === 'direction') {
      const holes = looked.find(({ step }) => step.id === `read.${one.step.id.replace(/\.direction$/, '')}`);
      if (holes && !holes.met)
        barred =
          'Both holes were not read: a load side that is fed from elsewhere would be live too. Read them, then prove it.';
    }
    return { ...one, barred: one.done ? null : barred };
  });
}

/** Stages that are worked on with the power off. */
const POWER_OFF: readonly Stage[] = ['dead', 'cut', 'protect', 'lay'];

/** Why a step waits: what was isolated for it has been joined again meanwhile. */
function noLongerIsolated(step: WorkStep, steps: readonly WorkStep[], facts: WorkFacts): string | null {
  if (!POWER_OFF.includes(step.stage)) return null;
  const gone = steps.find(
    ({ id, asks }) =>
      asks.by === 'isolation' &&
      asks.on &&
      asks.step !== 'dead-reading' &&
      facts.done.get(id)?.how === 'done' &&
      !facts.isolated.includes(asks.step),
  );
  return gone ? `No longer isolated: ${lower(gone.words)} Do it again first.` : null;
}

/** What was done on the vehicle for an edit that the plan no longer has, or that belongs to another way of doing it. */
export function strayDone(
  steps: readonly WorkStep[],
  done: ReadonlyMap<string, StepDone>,
): { readonly id: string; readonly step: StepDone }[] {
  const known = new Set(steps.map(({ id }) => id));
  return [...done].flatMap(([id, step]) =>
    step.how === 'done' && step.leaves !== undefined && !known.has(id) ? [{ id, step }] : [],
  );
}

/** The vehicle as it stands with only part of the plan done. */
export interface HalfDone {
  readonly edits: readonly string[];
  /** What must not be put back, and what else stands open, each a sentence. */
  readonly left: readonly string[];
  /** Dangers of the vehicle as it stands now. */
  readonly dangers: readonly Finding[];
  /** What a hand does to take back what was done, the last first, with the step it belongs to. */
  readonly back: readonly { readonly edit: string; readonly words: string }[];
}

/** Kinds of findings that say what is left on a vehicle in the middle of the work. */
const LEFT_KINDS = ['live-ends', 'second-break', 'back-feeds', 'held-up', 'protection'];

export function halfDone(
  plan: Examined,
  steps: readonly WorkStep[],
  isDone: (id: string) => boolean,
): HalfDone {
  const made = editsMadeBy(steps, isDone);
  const edits = plan.played.applied.map(({ edit }) => edit).filter(({ id }) => made.has(id));
  const physical = edits.filter(({ kind }) => kind !== 'label');
  const played = playPlan(plan.played.before, edits);
  const dangers =
    physical.length === 0
      ? []
      : examinePlayed(played).findings.filter(
          ({ kind, level }) => level === 'danger' && LEFT_KINDS.includes(kind),
        );
  return {
    edits: [...made],
    left: steps.flatMap(({ id, leaves }) => (leaves !== null && isDone(id) ? [leaves] : [])),
    dangers,
    back: played.applied.map(({ edit, undo }) => ({ edit: edit.id, words: undo })).reverse(),
  };
}
