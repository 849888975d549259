/** The fuse that a lead used for a test must not exceed. */
import type { CircuitFile, CircuitPart } from '../../format';

type Parts = Pick<CircuitFile, 'parts'>;

const CARRIES: readonly CircuitPart['kind'][] = ['wire', 'connector', 'splice'];

function smallestFrom(circuit: Parts, start: readonly string[], carries: readonly CircuitPart['kind'][]) {
  const reached = new Set(start);
  let smallest: number | null = null;
  // A set grows while it is walked; every node is visited once.
  for (const node of reached) {
    for (const one of circuit.parts) {
      if (!Object.values(one.pins).includes(node)) continue;
      if (one.kind === 'fuse') {
        // A fuse that nobody has read may be smaller than any other.
        if (one.ratingAmps === undefined) return null;
        smallest = Math.min(smallest ?? one.ratingAmps, one.ratingAmps);
      }
      if (carries.includes(one.kind)) for (const next of Object.values(one.pins)) reached.add(next as string);
    }
  }
  return smallest;
}

/**
 * The smallest fuse that a relay's contact hangs on, ampere: those reached from its 30 and 87 by wires, plugs and
 * splices alone. Null where the map shows none.
 */
export function fuseOfRelay(circuit: Parts, relay: string): number | null {
  const part = circuit.parts.find((one) => one.id === relay);
  if (part?.kind !== 'relay') return null;
  return smallestFrom(circuit, [part.pins['30'], part.pins['87'] ?? part.pins['30']], CARRIES);
}

/** What was found once for a circuit; it is asked for every fault in turn. */
const known = new WeakMap<Parts, Map<string, number | null>>();

/** The smallest fuse on the ways that lead to a point, through switches and contacts too; null where there is none. */
export function fuseOfNode(circuit: Parts, node: string): number | null {
  const found = known.get(circuit) ?? new Map<string, number | null>();
  known.set(circuit, found);
  const before = found.get(node);
  if (before !== undefined) return before;
  const amps = smallestFrom(circuit, [node], [...CARRIES, 'switch', 'relay', 'solenoid']);
  found.set(node, amps);
  return amps;
}
