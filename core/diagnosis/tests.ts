/** The tests a technician could do on a circuit: instrument, place, set-up, minutes. */

import type { TestRef } from '../format';
import type { CircuitModel } from '../network';
import { allOffers, setUpOf, spotOf, testId } from './kinds';
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
export const SWITCHING_MINUTES = 0.3;
/** Minutes that disturbing evidence counts for, besides the work itself. */
export const DISTURBING_MINUTES = 1;

/**
 * Every test that no flag bars, for a complaint about one function in one condition. Volts and functions
 * are offered everywhere; what loads, pulls or swaps something only along the runs of what failed.
 */
export function candidateTests(
  model: CircuitModel,
  complaint: { function: string; condition: string },
): TestCandidate[] {
  const runs = functionRuns(model, complaint.function, complaint.condition);
  const onRun = new Set(
    runs.flatMap((run) => [...run.stops, ...run.stations.map((station) => station.part)]),
  );
  // A function that should be off there has no run of its own; then nothing narrows the choice.
  const concerned = (id: string) => onRun.size === 0 || onRun.has(id);
  return allOffers({ model, circuit: model.circuit, ...complaint, concerned }).flatMap(
    ({ ref, accesses, disturbs = false }): TestCandidate[] => {
      if (accesses.length === 0) return [];
      const switching = 'condition' in ref && ref.condition !== complaint.condition ? SWITCHING_MINUTES : 0;
      const timed = accesses.map((access) => ({ ...access, minutes: access.minutes + switching }));
      return [{ id: testId(ref), ref, accesses: timed, disturbs, setUp: setUpOf(ref), spot: spotOf(ref) }];
    },
  );
}
