/** What hangs on a fuse or a relay's contact: everything that its load side reaches, whatever switches and contacts do. */
import { type Fault, faultAlteration } from '../../faults';
import type { CircuitFile, CircuitPart } from '../../format';
import { withoutPart } from '../../hands';
import { type Alteration, type CircuitModel, combineAlterations } from '../../network';
import type { Access, Names } from './kind';

type Parts = Pick<CircuitFile, 'parts' | 'reference'>;

/** Here the way ends: the supply, and what feeds others. */
const ENDS: readonly CircuitPart['kind'][] = ['battery', 'charging-source', 'ground'];

/** What a way to earth is made of; along these alone the way goes on where earth is reached. */
const EARTH_RUN: readonly CircuitPart['kind'][] = ['wire', 'connector', 'splice', 'ground'];

/** What lies behind a fuse or relay. */
interface Behind {
  /** Points that the load side reaches, the nearest first, its ways to earth among them. */
  readonly points: ReadonlySet<string>;
  /** Those that lie before the way to earth: what else is earthed there hangs on another feed. */
  readonly fed: ReadonlySet<string>;
  readonly parts: readonly CircuitPart[];
}

const NOTHING: Behind = { points: new Set(), fed: new Set(), parts: [] };

/** What was found once for a circuit; it is asked for every test and every fault. */
const known = new WeakMap<Parts, Map<string, Behind>>();

/** The point that the load hangs on behind a fuse, or behind the closing contact of a relay; null behind anything else. */
export function loadSide(part: CircuitPart | undefined): string | null {
  if (part?.kind === 'fuse') return part.pins.out;
  return part?.kind === 'relay' ? (part.pins['87'] ?? null) : null;
}

const pinsOf = (part: CircuitPart) => Object.values(part.pins) as string[];

/** Points that current passes between inside a part: a relay's coil and its contacts share none. */
function waysThrough(part: CircuitPart): string[][] {
  if (part.kind !== 'relay') return [pinsOf(part)];
  const { 85: one, 86: other, ...contacts } = part.pins;
  return [[one, other], Object.values(contacts) as string[]];
}

/** For every point the points that these parts join it with. */
function joined(parts: readonly CircuitPart[]): ReadonlyMap<string, string[][]> {
  const found = new Map<string, string[][]>();
  for (const points of parts.flatMap(waysThrough))
    for (const point of points) found.set(point, [...(found.get(point) ?? []), points]);
  return found;
}

/** A set grows while it is walked: every point is visited once. */
function walk(from: Iterable<string>, onwards: (point: string) => readonly string[][]): Set<string> {
  const reached = new Set(from);
  for (const point of reached)
    for (const points of onwards(point)) for (const next of points) reached.add(next);
  return reached;
}

function find(circuit: Parts, id: string): Behind {
  const start = circuit.parts.find((part) => part.id === id);
  const from = loadSide(start);
  if (from === null) return NOTHING;
  const earths = circuit.parts.filter((part) => part.kind === 'ground');
  const ends = new Set([circuit.reference, ...earths.map(({ pins }) => pins.body)]);
  const run = joined(circuit.parts.filter((part) => EARTH_RUN.includes(part.kind) && part.id !== id));
  const earthed = walk([...ends, ...earths.map(({ pins }) => pins.lug)], (point) => run.get(point) ?? []);
  if (start?.kind === 'fuse') ends.add(start.pins.in);
  const all = joined(circuit.parts.filter((part) => part.id !== id && !ENDS.includes(part.kind)));
  const points = walk([from], (point) =>
    ends.has(point) ? [] : ((earthed.has(point) ? run : all).get(point) ?? []),
  );
  for (const end of ends) points.delete(end);
  const fed = new Set([...points].filter((point) => !earthed.has(point)));
  const parts = circuit.parts.filter(
    (part) =>
      part.id !== id &&
      pinsOf(part).some((pin) => fed.has(pin) || (points.has(pin) && EARTH_RUN.includes(part.kind))),
  );
  return { points, fed, parts };
}

function behindOf(circuit: Parts, fuse: string): Behind {
  const found = known.get(circuit) ?? new Map<string, Behind>();
  known.set(circuit, found);
  const behind = found.get(fuse) ?? find(circuit, fuse);
  found.set(fuse, behind);
  return behind;
}

/** Points that the load side of a fuse or relay reaches, the nearest first; points on earth that end a way are not. */
export function pointsBehind(circuit: Parts, fuse: string): ReadonlySet<string> {
  return behindOf(circuit, fuse).points;
}

/** Parts behind a fuse or relay, from its load side on to earth, earth points included; it is none of them itself. */
export function partsBehind(circuit: Parts, fuse: string): readonly CircuitPart[] {
  return behindOf(circuit, fuse).parts;
}

/** Plugs and loads behind a fuse or relay: what may be taken apart to find out where a short is. */
function apartBehind(model: CircuitModel, fuse: string): readonly CircuitPart[] {
  return partsBehind(model.circuit, fuse).filter(
    (part) => !part.safetyCritical && (part.kind === 'connector' || model.network.loads.has(part.id)),
  );
}

/** Relays whose coils hang on a fuse: with a lamp in its place they may starve, and let go of what they switch. */
export function coilsBehind(model: CircuitModel, fuse: string): readonly string[] {
  const { fed, parts } = behindOf(model.circuit, fuse);
  return parts.flatMap((part) =>
    part.kind === 'relay' && [part.pins['86'], part.pins['85']].some((pin) => pin && fed.has(pin))
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

/**
 * Whether nothing behind a fuse or relay forbids an ohmmeter, or a lamp in its place: no safety function, no point that
 * must not be probed, no coil that holds such a feed.
 */
export function mayMeasureBehind(
  model: CircuitModel,
  fuse: string,
  asked: ReadonlySet<string> = new Set(),
): boolean {
  const { circuit } = model;
  const { points, parts } = behindOf(circuit, fuse);
  const and = new Set([...asked, fuse]);
  return (
    !circuit.nodes.some((node) => node.probe !== undefined && points.has(node.id)) &&
    !parts.some((part) => part.safetyCritical) &&
    coilsBehind(model, fuse).every((relay) => and.has(relay) || mayMeasureBehind(model, relay, and))
  );
}

/** Fuses in whose place a lamp may be. */
export function lampMayReplace(
  model: CircuitModel,
  concerned: (part: string) => boolean,
): readonly CircuitPart[] {
  return model.circuit.parts.filter(
    (part) =>
      part.kind === 'fuse' && !part.safetyCritical && concerned(part.id) && mayMeasureBehind(model, part.id),
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
