/** The tests a technician could do on a circuit: instrument, place, set-up, minutes. */

import { type CircuitFile, type Hand, type Reading, type TestRef, USUAL_HAND } from '../format';
import type { CircuitModel } from '../network';
import { type Deed, NO_DEED, type SafetyScene, safetyGate } from '../safety';
import { habitMinutes, missingInstrument } from './habits';
import { allOffers, kindOf, setUpOf, spotOf, testId } from './kinds';
import type { Access } from './kinds/kind';
import { functionRuns } from './run';

export interface TestCandidate {
  readonly id: string;
  readonly ref: TestRef;
  readonly accesses: readonly Access[];
  /** Pulls, reseats or swaps something, and so may cure what it looks for. */
  readonly disturbs: boolean;
  /** What a common mistake would spoil together: instrument, condition, interventions. */
  readonly setUp: string;
  readonly spot: string;
}

/** Minutes to go back and change key or switches from the positions of the complaint. */
const SWITCHING_MINUTES = 0.3;
/** Nothing takes less, whoever does it. */
const LEAST_MINUTES = 0.1;
/** Minutes that disturbing evidence counts for, besides the work itself. */
export const DISTURBING_MINUTES = 1;

/** A test that safety forbids or an instrument is missing for, with the reasons: whoever asks for it is told. */
export interface BarredTest {
  readonly id: string;
  readonly ref: TestRef;
  readonly reasons: readonly string[];
}

/**
 * Every test there is for a complaint about one function in one condition: those that may be done, and those that
 * safety forbids. Volts and functions are offered everywhere; what loads, pulls or swaps something only along the runs
 * of what failed.
 */
export function testsFor(
  model: CircuitModel,
  complaint: { function: string; condition: string },
  hand: Hand = USUAL_HAND,
  notNow: readonly string[] = [],
): { permitted: TestCandidate[]; barred: BarredTest[] } {
  const runs = functionRuns(model, complaint.function, complaint.condition);
  const onRun = new Set(
    runs.flatMap((run) => [...run.stops, ...run.stations.map((station) => station.part)]),
  );
  // A function that should be off there has no run of its own; then nothing narrows the choice.
  const concerned = (id: string) => onRun.size === 0 || onRun.has(id);
  const scene = { ...sceneOf(model, complaint, hand), notNow };
  const permitted: TestCandidate[] = [];
  const barred: BarredTest[] = [];
  for (const { ref, accesses, disturbs = false } of allOffers({
    model,
    circuit: model.circuit,
    ...complaint,
    concerned,
  })) {
    if (accesses.length === 0) continue;
    const id = testId(ref);
    const missing = missingInstrument(hand, ref);
    const reasons = [...safetyGate(deedOf(model, ref), scene).reasons, ...(missing ? [missing] : [])];
    if (reasons.length > 0) {
      barred.push({ id, ref, reasons });
      continue;
    }
    const switching = 'condition' in ref && ref.condition !== complaint.condition ? SWITCHING_MINUTES : 0;
    const more = switching + habitMinutes(hand, ref, model.circuit.parts);
    const timed = accesses.map((access) => ({
      ...access,
      minutes: Math.max(LEAST_MINUTES, access.minutes + more),
    }));
    permitted.push({ id, ref, accesses: timed, disturbs, setUp: setUpOf(ref), spot: spotOf(ref) });
  }
  return { permitted, barred };
}

/** Every test that safety does not forbid. */
export function candidateTests(
  model: CircuitModel,
  complaint: { function: string; condition: string },
  hand: Hand = USUAL_HAND,
): TestCandidate[] {
  return testsFor(model, complaint, hand).permitted;
}

/** What a hand does for a test, all of it. */
export function deedOf(model: CircuitModel, ref: TestRef): Deed {
  const on =
    'condition' in ref
      ? model.circuit.functions.filter((one) => model.expectedOn(one, ref.condition)).map(({ id }) => id)
      : [];
  return { ...NO_DEED, on, ...kindOf(ref).deed(model, ref) };
}

/** The job as safety sees it: what fails in a condition in which it should be off, runs unbidden. */
function sceneOf(
  model: CircuitModel,
  complaint: { function: string; condition: string },
  { lampVolts, without }: Hand,
): SafetyScene {
  const unbidden = !model.expectedOn(model.function(complaint.function), complaint.condition);
  return {
    circuit: model.circuit,
    unbidden,
    lampVolts: without.includes('lamp') ? [] : lampVolts,
    highestVolts: null,
  };
}

/** Why all work stops, by what was read; null where it does not. */
export function stoppedBy(readings: readonly Reading[], circuit: CircuitFile): string | null {
  const volts = readings.map(({ value }) => ('volts' in value ? Math.abs(value.volts) : 0));
  const scene = { circuit, unbidden: false, lampVolts: [], highestVolts: Math.max(0, ...volts) };
  return safetyGate(NO_DEED, scene).reasons[0] ?? null;
}
