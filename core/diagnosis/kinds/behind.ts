/** What hangs on a fuse or a relay's contact: everything that its load side reaches, whatever switches and contacts do. */
import { type Fault, faultAlteration } from '../../faults';
import type { CircuitFile, CircuitPart } from '../../format';
import { withoutPart } from '../../hands';
import { type Alteration, type CircuitModel, combineAlterations } from '../../network';
import type { Access, Names } from './kind';

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

/** Points that the load side of a fuse or relay reaches, the nearest first; points on earth that end a way are not. */
export function pointsBehind(circuit: Parts, fuse: string): ReadonlySet<string> {
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
function apartBehind(model: CircuitModel, fuse: string): readonly CircuitPart[] {
  return partsBehind(model.circuit, fuse).filter(
    (part) => !part.safetyCritical && (part.kind === 'connector' || model.network.loads.has(part.id)),
  );
}

/** Relays whose coils hang on a fuse: with a lamp in its place they may starve, and let go of what they switch. */
export function coilsBehind(model: CircuitModel, fuse: string): readonly string[] {
  const points = pointsBehind(model.circuit, fuse);
  return partsBehind(model.circuit, fuse).flatMap((part) =>
    part.kind === 'relay' && [part.pins['86'], part.pins['85']].some((pin) => pin && points.has(pin))
      ? [part.id]
      : [],
  );
}

/** More loads than these nobody takes apart at once. */
const MOST_LOADS = 4;

/** Loads behind a fuse or relay. */
function loadsBehind(model: CircuitModel, fuse: string): readonly CircuitPart[] {
  return partsBehind(model.circuit, fuse).filter((part) => model.network.loads.has(part.id));
}

/** What a test behind a fuse or relay has apart: one plug or load, every load, or nothing. */
export interface Apart {
  readonly part: string;
  readonly unplugged?: string;
  readonly apart?: 'loads';
}

/** Every way of having something apart behind a fuse or relay, nothing apart not among them. */
export function waysApart(model: CircuitModel, fuse: string): readonly Omit<Apart, 'part'>[] {
  const single = apartBehind(model, fuse).map(({ id }) => ({ unplugged: id }));
  const loads = loadsBehind(model, fuse);
  const all = loads.length > 1 && loads.length <= MOST_LOADS && !loads.some((part) => part.safetyCritical);
  return all ? [...single, { apart: 'loads' as const }] : single;
}

/** Ids of what is apart. */
export function apartOf(model: CircuitModel, { part, unplugged, apart }: Apart): readonly string[] {
  if (apart === 'loads') return loadsBehind(model, part).map(({ id }) => id);
  return unplugged === undefined ? [] : [unplugged];
}

/**
 * Where it is done: at what comes apart, so many minutes for each, or at the fuse itself. A second cover that something
 * lies behind is opened as well.
 */
export function apartAccess(
  model: CircuitModel,
  apart: Apart,
  lead: string,
  minutes: number,
  minutesEach: number,
): Access {
  const { circuit, network } = model;
  const ids = apartOf(model, apart);
  const [first, ...others] = [...new Set(ids.flatMap((id) => network.parts.get(id)?.place ?? []))];
  const opening = others.reduce(
    (sum, id) => sum + (circuit.places.find((place) => place.id === id)?.minutesToOpen ?? 0),
    0,
  );
  const place = first ?? network.parts.get(apart.part)?.place ?? null;
  return { place, lead, minutes: minutes + ids.length * minutesEach + opening };
}

/** "Unplug the heater and the lamp."; nothing where nothing comes apart. */
export function apartSteps(names: Names, { part, unplugged, apart }: Apart): string[] {
  if (apart === 'loads') return [`Unplug every load behind ${names.part(part)}.`];
  return unplugged ? [`Unplug ${names.part(unplugged)}.`] : [];
}

/** "the heater", "every load behind fuse 4"; null where nothing comes apart. */
export function apartWords(names: Names, { part, unplugged, apart }: Apart): string | null {
  if (apart === 'loads') return `every load behind ${names.part(part)}`;
  return unplugged ? names.part(unplugged) : null;
}

/** Whether nothing behind a fuse or relay forbids an ohmmeter, or a lamp in its place: no safety function, no point that must not be probed. */
export function mayMeasureBehind(circuit: CircuitFile, fuse: string): boolean {
  const points = pointsBehind(circuit, fuse);
  return (
    !circuit.nodes.some((node) => node.probe !== undefined && points.has(node.id)) &&
    !partsBehind(circuit, fuse).some((part) => part.safetyCritical)
  );
}

/**
 * The circuit with its faults, which together make `altered`, and plugs or loads apart; a load that is apart takes its
 * own short with it.
 */
export function withApart(
  model: CircuitModel,
  faults: readonly Fault[],
  altered: Alteration,
  apart: readonly string[],
): Alteration {
  if (apart.length === 0) return altered;
  const left = faults.filter(({ part, mode }) => mode !== 'shorted' || !apart.includes(part));
  return combineAlterations(
    ...(left.length === faults.length
      ? [altered]
      : left.map((fault) => faultAlteration(model.network, fault))),
    ...apart.map((part) => withoutPart(model.network, part)),
  );
}
