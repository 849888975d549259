/** What was seen against what was measured: a look never wins, and the difference stays until the part itself is measured. */
import { OPEN_MODES } from '../../faults';
import type { TakenReading } from '../evidence/readings';
import type { Hypothesis } from '../hypotheses/hypothesis';
import type { Names } from '../kinds/kind';

export interface LookConflict {
  /** The look. */
  readonly reading: string;
  readonly sentence: string;
}

/** What looked whole is doubted from this chance on that it is open; what looked broken, below the other. */
const MEASURED_OPEN = 0.5;
const MEASURED_WHOLE = 0.1;

/**
 * Looks that the other readings speak against. `p` are the chances with all readings, `logs` what each reading says of
 * every hypothesis.
 */
export function lookConflicts(
  hypotheses: readonly Hypothesis[],
  p: Float64Array,
  readings: readonly TakenReading[],
  logs: readonly (Float64Array | null)[],
  names: Names,
): LookConflict[] {
  return readings.flatMap(({ id, test, value }, index) => {
    const log = logs[index];
    if (test.kind !== 'look' || !('look' in value) || !log) return [];
    const measured = readings.some((one) => one.test.kind === 'continuity' && one.test.part === test.part);
    if (measured) return [];
    let open = 0;
    let all = 0;
    hypotheses.forEach(({ faults }, h) => {
      const without = p[h]! / Math.exp(log[h]!);
      all += without;
      if (faults.some(({ part, mode }) => part === test.part && OPEN_MODES.has(mode))) open += without;
    });
    const chance = all > 0 ? open / all : 0;
    const name = names.part(test.part);
    const settle = 'Take it out and measure it: the meter decides.';
    if (value.look === 'whole' && chance >= MEASURED_OPEN) {
      return [{ reading: id, sentence: `${name} looked whole, and by the readings it is open. ${settle}` }];
    }
    return value.look === 'broken' && chance <= MEASURED_WHOLE
      ? [
          {
            reading: id,
            sentence: `${name} looked broken, and by the readings current gets through it. ${settle}`,
          },
        ]
      : [];
  });
}
