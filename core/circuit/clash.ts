/** A circuit drawn for a vehicle that has others: which of its parts bear the id of one that is there already. */
import type { CircuitFile, CircuitPart } from '../format';
import { newIds } from './fit';
import { same } from './merge';

/** A part of a new circuit that bears the id of a part of the vehicle: the same part, or another one. */
export interface Clash {
  readonly id: string;
  readonly name: string;
  /** The part that has the id already, and the circuit that it is in. */
  readonly theirs: string;
  readonly circuit: string;
  /** Id that it gets if it is another part. */
  readonly proposal: string;
  /** What of it gives way if it is the same part: fields said otherwise here. */
  readonly givesWay: readonly string[];
  /** Why they cannot be one part, in words; null where they can. */
  readonly apart: string | null;
}

/** Fields of a part that are said here and said otherwise there; what only one says disagrees with nothing. */
function saidOtherwise(ours: CircuitPart, theirs: CircuitPart): string[] {
  const there = theirs as unknown as Readonly<Record<string, unknown>>;
  return Object.entries(ours)
    .filter(([field, value]) => field !== 'pins' && value !== undefined && !same(value, there[field]))
    .map(([field]) => field);
}

function whyApart(ours: CircuitPart, theirs: CircuitPart, file: string): string | null {
  if (ours.kind !== theirs.kind) return `in ${file} this is ${theirs.name}, which is no such part.`;
  return ours.safetyCritical && !theirs.safetyCritical
    ? `it is marked here as serving a safety function and is not in ${file}: mark it there first if it is the same.`
    : null;
}

/**
 * Parts whose ids the vehicle gives already, of a new version those that are new in it. The battery is none of them: it
 * becomes that of the vehicle.
 */
export function clashesWith(
  circuit: CircuitFile,
  existing: readonly CircuitFile[],
  saved: CircuitFile | null = null,
): readonly Clash[] {
  const before = new Set(saved?.parts.map(({ id }) => id));
  const proposals = newIds(({ parts }) => parts, circuit, existing, saved);
  return circuit.parts.flatMap((ours): Clash[] => {
    const file = existing.find((one) => one.parts.some((part) => part.id === ours.id));
    const theirs = file?.parts.find((part) => part.id === ours.id);
    if (!file || !theirs || before.has(ours.id) || (ours.kind === 'battery' && theirs.kind === 'battery'))
      return [];
    const apart = whyApart(ours, theirs, file.name);
    return [
      {
        id: ours.id,
        name: ours.name,
        theirs: theirs.name,
        circuit: file.name,
        proposal: proposals.get(ours.id)!,
        givesWay: apart === null ? saidOtherwise(ours, theirs) : [],
        apart,
      },
    ];
  });
}
