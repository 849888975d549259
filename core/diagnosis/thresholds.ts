/** Chances from which something is said: one set of them, so that no two places of a screen can differ. */

/** From this chance on a hypothesis or a suspect is worth a word, and nothing that has it is called cleared. */
export const WORTH_A_WORD = 0.05;
/** From this chance on it counts that current flows through a point or part. */
export const FLOWS = 0.95;
/** And up to this that none does. */
export const FLOWS_NOT = 0.05;

/**
 * No reading speaks more for one hypothesis against another, log-likelihood: every result has a floor for readings that are
 * wrong (`evidence/evidence.ts`), and no density exceeds that of the meter's own error.
 */
export const MOST_OF_ONE = 40;
