/** Which tests may be asked now: those that were not done, and those that are worth doing again. */
import type { CircuitModel } from '../../network';
import type { AssessmentInput, Complaint } from '../assessment';
import type { EpisodeCounter } from '../evidence/episodes';
import type { EvidenceState } from '../evidence/evidence';
import { fittedKey } from '../evidence/fitted';
import type { Predictions } from '../evidence/predictions';
import type { RepairGroup } from '../evidence/repairGroup';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { testId } from '../kinds';
import type { InPlay } from './next';

/** From this chance on that it comes and goes, what was read before it last changed may be read again. */
const COMES_AND_GOES = 0.3;

/** What a card is made from. */
export interface Sighted {
  readonly input: AssessmentInput;
  /** Of the circuit with its parts where they stand now. */
  readonly predictions: Predictions;
  readonly groups: readonly RepairGroup[];
  readonly inPlay: InPlay;
}

/** What a proposal is chosen from. */
export interface Asked extends Sighted {
  readonly p: Float64Array;
  readonly state: EvidenceState;
  readonly counter: EpisodeCounter;
  readonly askedIn: number;
  /** Episode of every reading. */
  readonly episodes: readonly number[];
}

/** Chance of the faults that come and go, each times a share. */
function loose(
  hypotheses: readonly Hypothesis[],
  p: Float64Array,
  share: (h: number) => number = () => 1,
): number {
  return hypotheses.reduce((sum, one, h) => (one.lasting === null ? sum : sum + p[h]! * share(h)), 0);
}

/** Something that comes and goes leads, and is away just now. */
export function isSoundNow(
  model: CircuitModel,
  { function: of, condition }: Complaint,
  { predictions, p, state, counter }: Asked,
): boolean {
  const sound = model.outcome(model.function(of), model.sound(condition));
  return (
    counter.symptomNow === sound && loose(predictions.hypotheses, p, (h) => 1 - state.presentNow(h)) > 0.5
  );
}

/** Tests that need not be done again: all that were, or those since it last came or went while it does so. */
export function alreadyTaken({ input, predictions, p, counter, episodes }: Asked): ReadonlySet<string> {
  const comesAndGoes = loose(predictions.hypotheses, p) > COMES_AND_GOES;
  // With parts exchanged it is another circuit.
  const now = fittedKey(input.fitted);
  return new Set(
    input.readings
      .filter(
        ({ fitted }, index) =>
          fittedKey(fitted) === now && (!comesAndGoes || (episodes[index] ?? 0) >= counter.changedIn),
      )
      .map((reading) => testId(reading.test)),
  );
}

/** The complaint may be looked at again once something was touched since: does it fail now? */
export function mayAskAgain(complaint: Complaint, { counter, askedIn }: Asked): string | null {
  return askedIn < counter.current ? testId({ kind: 'function', ...complaint }) : null;
}

/** How often a test was done on this job. */
export function timesTaken(id: string, { readings }: AssessmentInput): number {
  return readings.filter((reading) => testId(reading.test) === id).length;
}
