/** Makes a circuit from elsewhere one of a vehicle that has circuits already: one battery, one body, no name twice. */

import type { CircuitFile, CircuitPart } from '../format';
import { PROTECTORS } from './protects';

/**
 * What each id of a circuit becomes: itself where nothing of the vehicle has it, or where the version before had it;
 * otherwise with the first number behind a point that neither the vehicle nor the circuit gives.
 */
export function newIds(
  of: (file: CircuitFile) => readonly { readonly id: string }[],
  circuit: CircuitFile,
  existing: readonly CircuitFile[],
  saved: CircuitFile | null,
): ReadonlyMap<string, string> {
  const theirs = new Set(existing.flatMap((file) => of(file).map(({ id }) => id)));
  const before = new Set((saved ? of(saved) : []).map(({ id }) => id));
  const used = new Set([...theirs, ...of(circuit).map(({ id }) => id)]);
  return new Map(
    of(circuit).map(({ id }) => {
      let made = id;
      if (theirs.has(id) && !before.has(id)) for (let n = 2; used.has(made); n++) made = `${id}.${n}`;
      used.add(made);
      return [id, made] as const;
    }),
  );
}

interface FitOptions {
  /** Ids of parts that are the same part as the vehicle has under that id. */
  readonly same?: readonly string[];
  /** Its battery is another than the vehicle's: it stays beside that. */
  readonly ownBattery?: boolean;
  /** The version before: what bears its id there keeps it, and its battery and body stay what they are. */
  readonly saved?: CircuitFile | null;
}

/**
 * Renames parts, points, places, functions and conditions that the vehicle has already; battery and body become its
 * own, and so does every part in `same`: it is as the vehicle has it, between the points that it is between there.
 */
export function fitCircuit(
  circuit: CircuitFile,
  existing: readonly CircuitFile[],
  options: FitOptions = {},
): CircuitFile {
  return fitted(circuit, existing, options).circuit;
}

interface Fitted {
  readonly circuit: CircuitFile;
  /** Points that are one here and two on the vehicle, with nothing drawn between them that always conducts. */
  readonly torn: readonly string[];
}

/** As `fitCircuit`, and says where parts that are to be the vehicle's own do not meet there. */
export function fitted(
  circuit: CircuitFile,
  existing: readonly CircuitFile[],
  { same = [], ownBattery = false, saved = null }: FitOptions,
): Fitted {
  const [first] = existing;
  if (!first) return { circuit, torn: [] };
  const battery = saved ? undefined : circuit.parts.find((part) => part.kind === 'battery');
  const own = ownBattery ? undefined : battery;
  const batteries = existing.flatMap(({ parts }) => parts).filter((part) => part.kind === 'battery');
  const theirs = batteries.find(({ id }) => id === own?.id) ?? batteries[0];
  const node = new Map<string, string>();
  if (own && theirs) {
    node.set(own.pins.plus, theirs.pins.plus);
    node.set(own.pins.minus, theirs.pins.minus);
  }
  const body = first.parts.find((part) => part.kind === 'ground')?.pins.body ?? first.reference;
  const ownBody = circuit.parts.find((part) => part.kind === 'ground')?.pins.body;
  // Where body and battery minus are one point in the circuit, its earths go to the vehicle's body.
  const minusIsBody = ownBody !== undefined && battery?.pins.minus === ownBody;
  if (ownBody !== undefined && !saved) node.set(ownBody, body);
  const ours = new Map(circuit.parts.map((one) => [one.id, one]));
  const kept = new Map<string, CircuitPart>();
  const gaps: { at: string; from: string; to: string }[] = [];
  for (const one of existing.flatMap((file) => file.parts)) {
    const mine = same.includes(one.id) && !kept.has(one.id) ? ours.get(one.id) : undefined;
    if (!mine) continue;
    kept.set(one.id, one);
    const there = one.pins as Readonly<Record<string, string>>;
    for (const [pin, at] of Object.entries(mine.pins)) {
      const wanted = there[pin];
      const before = node.get(at);
      if (wanted === undefined || wanted === before) continue;
      if (before === undefined) node.set(at, wanted);
      else gaps.push({ at, from: before, to: wanted });
    }
  }
  // One point here may be two on the vehicle: a sketch leaves out what lies before a fuse. That comes along.
  const known = existing.flatMap((file) => file.parts);
  const between = gaps.map((gap) => ({ ...gap, way: wayBetween(known, gap.from, gap.to, LEAD_ON) }));
  const ids = (of: (file: CircuitFile) => readonly { readonly id: string }[]) =>
    newIds(of, circuit, existing, saved);
  const part = new Map(ids(({ parts }) => parts));
  for (const id of kept.keys()) part.set(id, id);
  if (own && theirs) part.set(own.id, theirs.id);
  for (const [id, made] of ids(({ nodes }) => nodes)) if (!node.has(id)) node.set(id, made);
  const place = ids(({ places }) => places);
  const condition = ids(({ conditions }) => conditions);
  const functions = ids((file) => file.functions);
  const loadOf = (load: string) => {
    const at = load.lastIndexOf(':');
    return at > 0 && !part.has(load)
      ? `${part.get(load.slice(0, at))}${load.slice(at)}`
      : (part.get(load) ?? load);
  };
  const keys = (record: Readonly<Record<string, string>> | undefined) =>
    record && Object.fromEntries(Object.entries(record).map(([id, value]) => [part.get(id) ?? id, value]));
  const renamed = (one: CircuitPart): CircuitPart => {
    if (own && theirs && one.id === own.id) return theirs;
    const here = kept.get(one.id);
    if (here) return here;
    const pins = Object.fromEntries(Object.entries(one.pins).map(([pin, at]) => [pin, node.get(at) ?? at]));
    return {
      ...one,
      id: part.get(one.id)!,
      pins,
      ...(one.place === undefined ? {} : { place: place.get(one.place) ?? one.place }),
    } as CircuitPart;
  };
  const parts = circuit.parts.map(renamed);
  const shared = new Map(existing.flatMap((one) => one.nodes.map((each) => [each.id, each] as const)));
  const nodes = new Map<string, CircuitFile['nodes'][number]>();
  // Pins of a part of the vehicle that nothing here goes to come along with it.
  for (const one of kept.values()) {
    for (const at of Object.values(one.pins) as string[]) nodes.set(at, shared.get(at)!);
  }
  for (const one of circuit.nodes) {
    const id = node.get(one.id)!;
    const known = saved ? undefined : shared.get(id);
    const access = (one.access ?? []).map((each) => ({
      ...each,
      place: place.get(each.place) ?? each.place,
    }));
    nodes.set(id, known ?? { ...one, id, ...(access.length > 0 ? { access } : {}) });
  }
  const reference = shared.get(first.reference);
  if (reference && minusIsBody) nodes.set(reference.id, reference);
  // What joins the vehicle's battery to its body comes along, so that the circuit works by itself.
  const earthWay = minusIsBody
    ? wayBetween(first.parts, theirs?.pins.minus ?? first.reference, body, JOINS)
    : [];
  const drawn = new Set(parts.map((one) => one.id));
  const along = new Map(
    [...earthWay, ...between.flatMap(({ way }) => way)].map((one) => [one.id, one] as const),
  );
  for (const id of drawn) along.delete(id);
  for (const one of along.values()) {
    for (const at of Object.values(one.pins) as string[]) {
      const known = shared.get(at);
      if (known) nodes.set(at, known);
    }
  }
  const places = new Map<string, CircuitFile['places'][number]>();
  const wanted = new Set([
    ...[...nodes.values()].flatMap((one) => (one.access ?? []).map((each) => each.place)),
    ...[...parts, ...along.values()].flatMap((one) => (one.place === undefined ? [] : [one.place])),
  ]);
  const mine = new Set(place.values());
  for (const one of existing.flatMap((each) => each.places)) {
    if (wanted.has(one.id) && !mine.has(one.id)) places.set(one.id, one);
  }
  for (const one of circuit.places) {
    const id = place.get(one.id)!;
    if (saved || wanted.has(id)) places.set(id, { ...one, id });
  }
  const made: CircuitFile = {
    ...circuit,
    id: ids((file) => [file]).get(circuit.id)!,
    reference: saved ? circuit.reference : first.reference,
    places: [...places.values()],
    nodes: [...nodes.values()],
    parts: [...parts, ...along.values()],
    conditions: circuit.conditions.map((one) => ({
      ...one,
      id: condition.get(one.id)!,
      ...(one.switches ? { switches: keys(one.switches)! } : {}),
      ...(one.pluggedIn ? { pluggedIn: keys(one.pluggedIn)! } : {}),
      ...(one.after === undefined ? {} : { after: condition.get(one.after) ?? one.after }),
    })),
    functions: circuit.functions.map((one) => ({
      ...one,
      id: functions.get(one.id)!,
      load: loadOf(one.load),
    })),
  };
  const torn = between.filter(({ way }) => way.length === 0).map(({ at }) => at);
  return { circuit: made, torn };
}

/** What joins an earth to a post. */
const JOINS: readonly CircuitPart['kind'][] = ['wire', 'ground', 'connector', 'splice'];
/** What leads on whatever is switched: a way of these alone may be left out of a sketch. */
const LEAD_ON: readonly CircuitPart['kind'][] = [...JOINS, ...PROTECTORS];

/** Parts on the shortest way of such kinds between two points; none where they are one or are not joined. */
function wayBetween(
  parts: readonly CircuitPart[],
  from: string,
  to: string,
  kinds: readonly CircuitPart['kind'][],
): CircuitPart[] {
  const before = new Map<string, { node: string; part: CircuitPart }>();
  const queue = [from];
  for (const node of queue) {
    if (node === to) break;
    for (const part of parts) {
      if (!kinds.includes(part.kind)) continue;
      const nodes = Object.values(part.pins) as string[];
      if (!nodes.includes(node)) continue;
      for (const next of nodes) {
        if (next === from || before.has(next)) continue;
        before.set(next, { node, part });
        queue.push(next);
      }
    }
  }
  const way: CircuitPart[] = [];
  for (let at = before.get(to); at; at = before.get(at.node)) way.push(at.part);
  return way;
}
