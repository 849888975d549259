/** What still stands between a job and its closing, in words. */
import type { RequiredProof } from '../diagnosis';
import { cellKey } from './event';
import type { JobState } from './state';

export function missingProofs(job: JobState, proofs: readonly RequiredProof[]): string[] {
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
  if (job.swaps.length > 0) missing.push('exchanged relays have not been put back');
  else if (job.afterSwap.length > 0) {
    missing.push('a function of an exchanged relay has not been seen to work since it was put back');
  }
  // A fuse does not blow for nothing: while the cause is open, somebody has to keep an eye on it.
  if (job.found?.cause === 'unknown' && job.watches.every((watch) => watch.done !== null)) {
    missing.push('the cause is unknown and no watch item is set');
  }
  return missing;
}
