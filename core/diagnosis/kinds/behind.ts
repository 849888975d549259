/** What hangs on a fuse or a relay's contact: everything that its load side reaches, whatever switches and contacts do. */
import { type Fault, faultAlteration } from '../../faults';
import type { CircuitFile, CircuitPart } from '../../format';
import { withoutPart } from '../../hands';
import { type Alteration, type CircuitModel, combineAlterations } from '../../network';

type Parts = Pick<CircuitFile, 'parts' | 'reference'>;

/** Here the way ends: the supply, and what feeds others. */
const ENDS: readonly CircuitPart['kind'][] = ['battery', 'charging-source', 'ground'];

const NONE: ReadonlySet<string> = new Set();

/** What was found once for a circuit; it is asked for every test and every fault. */
const known = new WeakMap<Parts, Map<string, ReadonlySet<string>>>();
const knownParts = new WeakMap<Parts, Map<string, readonly CircuitPart[]>>();

/** The point that the load hangs on behind a fuse, or behind the closing contact of a relay; null behind anything else. */
export function loadSide(part: CircuitPart | undefined): string | null {
  if (part?.kind === 'fuse') return part.pins.out;
  return part?.kind === 'relay' ? (part.pins['87'] ?? null) : null;
}

/** Points that the load side of a fuse or relay reaches, those on earth among them. */
function pointsBehind(circuit: Parts, fuse: string): ReadonlySet<string> {
  const found = known.get(circuit) ?? new Map<string, ReadonlySet<string>>();
  known.set(circuit, found);
  const before = found.get(fuse);
  if (before) return before;
  const start = circuit.parts.find((part) => part.id === fuse);
  const from = loadSide(start);
  if (from === null) {
    found.set(fuse, NONE);
    return NONE;
  }
  const reached = new Set([from]);
  const ends = new Set([circuit.reference]);
  if (start?.kind === 'fuse') ends.add(start.pins.in);
  for (const part of circuit.parts) if (part.kind === 'ground') ends.add(part.pins.body);
  const pinsAt = new Map<string, string[][]>();
  for (const part of circuit.parts) {
    if (part.id === fuse || ENDS.includes(part.kind)) continue;
    const pins = Object.values(part.pins) as string[];
    for (const pin of pins) pinsAt.set(pin, [...(pinsAt.get(pin) ?? []), pins]);
  }
  // A set grows while it is walked; every point is visited once.
  for (const node of reached) {
    if (ends.has(node)) continue;
    for (const pins of pinsAt.get(node) ?? []) for (const pin of pins) reached.add(pin);
  }
  for (const end of ends) reached.delete(end);
  found.set(fuse, reached);
  return reached;
}

/** Parts behind a fuse or relay, from its load side on to earth, earth points included; it is none of them itself. */
export function partsBehind(circuit: Parts, fuse: string): readonly CircuitPart[] {
  const found = knownParts.get(circuit) ?? new Map<string, readonly CircuitPart[]>();
  knownParts.set(circuit, found);
  const before = found.get(fuse);
  if (before) return before;
  const points = pointsBehind(circuit, fuse);
  const parts = circuit.parts.filter(
    (part) => part.id !== fuse && (Object.values(part.pins) as string[]).some((pin) => points.has(pin)),
  );
  found.set(fuse, parts);
  return parts;
}

/** Plugs and loads behind a fuse or relay: what may be taken apart to find out where a short is. */
export function apartBehind(model: CircuitModel, fuse: string): readonly CircuitPart[] {
  return partsBehind(model.circuit, fuse).filter(
    (part) => !part.safetyCritical && (part.kind === 'connector' || model.network.loads.has(part.id)),
  );
}

/** Whether nothing behind a fuse or relay forbids an ohmmeter: no safety function, no point that must not be probed. */
export function mayMeasureBehind(circuit: CircuitFile, fuse: string): boolean {
  const points = pointsBehind(circuit, fuse);
  return (
    !circuit.nodes.some((node) => node.probe !== undefined && points.has(node.id)) &&
    !partsBehind(circuit, fuse).some((part) => part.safetyCritical)
  );
}

/**
 * The circuit with its faults, which together make `altered`, and one plug or load apart, or none; a load that is apart
 * takes its own short with it.
 */
export function withApart(
  model: CircuitModel,
  faults: readonly Fault[],
  altered: Alteration,
  unplugged: string | undefined,
): Alteration {
  if (unplugged === undefined) return altered;
  const left = faults.filter((fault) => fault.part !== unplugged || fault.mode !== 'shorted');
  return combineAlterations(
    ...(left.length === faults.length
      ? [altered]
      : left.map((fault) => faultAlteration(model.network, fault))),
    withoutPart(model.network, unplugged),
  );
}
