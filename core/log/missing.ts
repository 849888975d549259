/** What still stands between a job and its closing, in words. */
import type { RequiredProof } from '../diagnosis';
import type { CircuitFile } from '../format';
import { causeReopened } from './cause';
import { cellKey } from './event';
import { boardOwed } from './options';
import { owedProofs } from './owed';
import { plansOpen } from './plansOnJob';
import type { JobState } from './state';

/** `circuit`: the one that the job is traced on; null where there is none. */
export function missingProofs(
  job: JobState,
  proofs: readonly RequiredProof[],
  circuit: CircuitFile | null,
): string[] {
  if (job.complaint?.work) return [...missingOfWork(job), ...missingBesides(job, proofs, circuit)];
  const missing: string[] = [];
  if (!job.found) missing.push('nothing is recorded as found');
  if (job.repairs.length === 0) missing.push('no repair is recorded');
  const unseen = proofs.filter((proof) => !job.proofs.has(cellKey(proof.function, proof.condition)));
  const wrong = proofs.filter((proof) => {
    const cell = job.proofs.get(cellKey(proof.function, proof.condition));
    return cell !== undefined && cell.state !== proof.expected;
  });
  if (proofs.length === 0) {
    missing.push(
      job.complaint?.function
        ? 'what has to be seen is still being worked out'
        : 'the function that failed is not named, so nothing of it could be seen',
    );
  }
  if (unseen.length > 0) {
    missing.push(
      unseen.length === 1
        ? 'one function has not been seen'
        : `${unseen.length} functions have not been seen`,
    );
  }
  if (wrong.length > 0) {
    missing.push(
      wrong.length === 1
        ? 'one function is not as it should be'
        : `${wrong.length} functions are not as they should be`,
    );
  }
  if (job.swaps.length > 0) missing.push(NOT_BACK);
  else if (job.afterSwap.length > 0) {
    missing.push('a function of an exchanged relay has not been seen to work since it was put back');
  }
  // A fuse does not blow for nothing: while the cause is open, somebody has to keep an eye on it.
  if (job.found?.cause === 'unknown' && job.watches.every((watch) => watch.done !== null)) {
    missing.push('the cause is unknown and no watch item is set');
  }
  for (const words of causeReopened(job, circuit)) missing.push(`the cause is open again: ${words}`);
  return [...missing, ...missingBesides(job, proofs, circuit)];
}

/** Of what else is owed: what nobody has answered, and what is not as it should be. */
function missingBesides(
  job: JobState,
  proofs: readonly RequiredProof[],
  circuit: CircuitFile | null,
): string[] {
  const owed = owedProofs(job, circuit, proofs);
  const lower = (words: string) => `${words[0]!.toLowerCase()}${words.slice(1)}`;
  return [
    ...plansOpen(job),
    ...owed.filter(({ answer }) => answer === null).map(({ name }) => `not answered: ${lower(name)}`),
    ...owed
      .filter(({ answer }) => answer === 'wrong')
      .map(({ name, words }) => `not as it should be: ${lower(name)}${words ? ` (${words})` : ''}`),
    ...boardOwed(job),
  ];
}

const NOT_BACK = 'exchanged relays have not been put back';

/** Work is done when somebody has said so; what was changed, when a function was seen since. */
function missingOfWork({ entries, repairs, complaint, swaps, plans }: JobState): string[] {
  const missing: string[] = [];
  const carried = plans.some(({ ended }) => ended !== null && ended.how !== 'dropped');
  if (repairs.length === 0 && !carried) missing.push('no work is recorded as done');
  const standing = entries.filter(({ struck }) => !struck).map(({ event }) => event.body.kind);
  const since = standing.slice(standing.lastIndexOf('repair') + 1);
  // What a plan asks to be proved was seen before it was carried out.
  const seen = carried || since.some((kind) => kind === 'function-check' || kind === 'proof');
  if (complaint?.work === 'change' && !seen) {
    missing.push('no function has been seen since the change');
  }
  if (swaps.length > 0) missing.push(NOT_BACK);
  return missing;
}
