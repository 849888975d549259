/** A reading as diagnosis takes it, how far it is to be believed, and the stretch of time that it belongs to. */
import type { Preconditions, Reading } from '../../format';

/** One reading in a hundred is wrong whatever was made sure of before. */
export const WRONG_READING = 0.01;

export interface TakenReading extends Reading {
  readonly id: string;
  /** It was read with a minus; the leads were the wrong way round, and its value is the size. */
  readonly turned?: true | undefined;
}

/** Nothing was made sure of: a reported complaint, for instance. */
export const UNSURE: Preconditions = { tester: false, reference: false, setUp: true };

/** What each missing precondition adds to the chance that a reading is simply wrong. */
const UNPROVED = { tester: 0.05, reference: 0.05, setUp: 0.1 } as const;
/** Chance that a reading is wrong, from what was made sure of before it. */
export function wrongChance(sure: Preconditions | undefined): number {
  if (!sure) return WRONG_READING;
  return (
    WRONG_READING +
    (sure.tester ? 0 : UNPROVED.tester) +
    (sure.reference ? 0 : UNPROVED.reference) +
    (sure.setUp ? 0 : UNPROVED.setUp)
  );
}

/** A stretch in which what comes and goes stays as it is. */
export interface Episode {
  readonly number: number;
  /** Parts whose state was left open again when it began; null for all. */
  readonly freed: ReadonlySet<string> | null;
}
