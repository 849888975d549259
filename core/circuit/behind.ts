/** What hangs on a fuse or a relay's contact: everything that its load side reaches, whatever switches and contacts do. */
import type { CircuitFile, CircuitPart } from '../format';

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

/** Relays whose coils hang on a fuse: with a lamp in its place they may starve, and let go of what they switch. */
export function coilsBehind(circuit: Parts, fuse: string): readonly string[] {
  const { fed, parts } = behindOf(circuit, fuse);
  return parts.flatMap((part) =>
    part.kind === 'relay' && [part.pins['86'], part.pins['85']].some((pin) => pin && fed.has(pin))
      ? [part.id]
      : [],
  );
}

/** Points that the load side of a fuse or relay feeds, before the way to earth. */
export function fedBehind(circuit: Parts, fuse: string): ReadonlySet<string> {
  return behindOf(circuit, fuse).fed;
}
