/** How a job ends: repaired or restored as its cause is known, or without a repair. */
import { ENDING_WORDS } from './names';
import type { JobState } from './state';

/** Endings that a person says; how well a repair ends follows from the cause. */
export type SaidEnding = 'repaired' | 'made-safe' | 'not-found';

export const ENDINGS: readonly { readonly id: SaidEnding; readonly name: string; readonly asks: string }[] = [
  { id: 'repaired', name: 'Repaired', asks: 'Reason for closing all the same' },
  { id: 'made-safe', name: 'Made safe, not repaired', asks: 'What makes it safe, and what is left' },
  { id: 'not-found', name: 'Not found', asks: 'What was looked at, and what is left' },
];

const OF_CAUSE = {
  proved: 'repaired, cause proved',
  suspected: 'repaired, cause suspected',
  unknown: 'restored, cause unknown',
} as const;

/** In words; null while the job is not closed, and where nothing was found that could have been repaired. */
export function endingWords({ state, ending, repairs, found }: JobState): string | null {
  if (state !== 'closed') return null;
  if (ending) return ENDING_WORDS[ending];
  return repairs.length > 0 && found ? OF_CAUSE[found.cause] : null;
}

/** Why a job may not be closed so; null where it may. `missing` is what a repair is still owed. */
export function whyNotEnd(
  job: Pick<JobState, 'readings' | 'checks' | 'slotReadings'>,
  ending: SaidEnding,
  missing: readonly string[],
  words: string,
): string | null {
  if (ending === 'repaired') {
    return missing.length > 0 && words === ''
      ? `Not everything is proved yet: ${missing.join('; ')}. Prove it, or say why the job is closed all the same.`
      : null;
  }
  if (ending === 'made-safe') {
    return words === '' ? 'Say what makes it safe, and what is left for whoever repairs it.' : null;
  }
  const looked =
    job.readings.some(({ struck }) => !struck) || job.checks.size > 0 || job.slotReadings.length > 0;
  if (!looked) return 'Nothing was read or seen yet: what was not looked for cannot be said not to be found.';
  return words === '' ? 'Say what was looked at, and what is left for whoever goes on.' : null;
}

/** How the job stands, as the head of its sheet says it; `open` is what is still owed. */
export function standingWords(job: JobState, open: readonly string[]): string {
  if (job.state !== 'closed') {
    return job.handedOver ? `OPEN: handed to ${job.handedOver.to} in the middle` : 'OPEN: not handed over';
  }
  if (job.ending) return `Closed: ${endingWords(job)}`;
  if (open.length > 0) return 'Closed, not verified';
  return job.complaint?.work && job.complaint.work !== 'change'
    ? 'Closed, the work recorded'
    : job.temporaries.length > 0
      ? 'Closed and verified, but for what is temporary'
      : 'Closed and verified';
}
