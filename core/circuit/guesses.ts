/** What of a circuit is guessed because nobody has said it. */
import type { CircuitPart } from '../format';
import { GUESS_TOLERANCE, WIRE_GUESS_TOLERANCE } from '../limits';
import { LOAD_KINDS } from './expand';
import type { BranchRole } from './network';

/** What is not known of a part, in words that follow "not known:"; null where all that counts is known. */
export function unknownOf(part: CircuitPart): string | null {
  if (part.kind === 'wire') {
    if (part.ohms !== undefined) return null;
    if (part.lengthMetres !== undefined && part.sizeMm2 !== undefined) return null;
    return part.lengthMetres === undefined && part.sizeMm2 === undefined
      ? 'length and size'
      : part.lengthMetres === undefined
        ? 'length'
        : 'size';
  }
  if (part.kind === 'fuse') return part.ratingAmps === undefined && part.ohms === undefined ? 'rating' : null;
  if (part.kind === 'socket') {
    const open = part.appliances.some(
      (one) => one.watts === undefined && one.ohms === undefined && one.amps === undefined,
    );
    return open ? 'power of what is plugged in' : null;
  }
  if (part.kind === 'led') return part.watts === undefined && part.amps === undefined ? 'power' : null;
  if (!LOAD_KINDS.includes(part.kind)) return null;
  const load = part as Extract<CircuitPart, { kind: 'lamp' }>;
  return load.watts === undefined && load.ohms === undefined && load.amps === undefined ? 'power' : null;
}

/** Whether nobody knows what a load takes. */
export function isUnknownLoad(part: CircuitPart): boolean {
  return part.kind !== 'wire' && part.kind !== 'fuse' && unknownOf(part) !== null;
}

/**
 * Relative spread of a branch's resistance where it is guessed; null where it is known. A wire counts widest: what is
 * lost over it moves with its own length and size and with the current of a load that may be unknown too.
 */
export function guessTolerance(part: CircuitPart, role: BranchRole): number | null {
  if (unknownOf(part) === null) return null;
  // The contacts of a socket are contacts; only what is plugged in is open.
  if (part.kind === 'socket' && role !== 'load') return null;
  return part.kind === 'wire' ? WIRE_GUESS_TOLERANCE : GUESS_TOLERANCE;
}
