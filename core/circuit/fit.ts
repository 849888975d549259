/** Makes a circuit from elsewhere one of a vehicle that has circuits already: one battery, one body, no name twice. */
import type { CircuitFile, CircuitPart } from '../format';

/** Renames parts, points, places, functions and conditions that the vehicle has already; battery and body become its own. */
export function fitCircuit(circuit: CircuitFile, existing: readonly CircuitFile[]): CircuitFile {
  const [first] = existing;
  if (!first) return circuit;
  const own = circuit.parts.find((part) => part.kind === 'battery');
  const theirs = first.parts.find((part) => part.kind === 'battery');
  const node = new Map<string, string>();
  if (own && theirs) {
    node.set(own.pins.plus, theirs.pins.plus);
    node.set(own.pins.minus, theirs.pins.minus);
  }
  const body = first.parts.find((part) => part.kind === 'ground')?.pins.body ?? first.reference;
  const ownBody = circuit.parts.find((part) => part.kind === 'ground')?.pins.body;
  // Where body and battery minus are one point in the circuit, its earths go to the vehicle's body.
  const minusIsBody = ownBody !== undefined && own?.pins.minus === ownBody;
  if (ownBody !== undefined) node.set(ownBody, body);
  const taken = {
    part: new Set(existing.flatMap((one) => one.parts.map((part) => part.id))),
    node: new Set(existing.flatMap((one) => one.nodes.map((each) => each.id))),
    place: new Set(existing.flatMap((one) => one.places.map((each) => each.id))),
    condition: new Set(existing.flatMap((one) => one.conditions.map((each) => each.id))),
    function: new Set(existing.flatMap((one) => one.functions.map((each) => each.id))),
    file: new Set(existing.map((one) => one.id)),
  };
  const free = (id: string, used: Set<string>) => {
    let made = id;
    for (let n = 2; used.has(made); n++) made = `${id}.${n}`;
    used.add(made);
    return made;
  };
  const part = new Map(circuit.parts.map((one) => [one.id, free(one.id, taken.part)]));
  if (own && theirs) part.set(own.id, theirs.id);
  for (const one of circuit.nodes) if (!node.has(one.id)) node.set(one.id, free(one.id, taken.node));
  const place = new Map(circuit.places.map((one) => [one.id, free(one.id, taken.place)]));
  const condition = new Map(circuit.conditions.map((one) => [one.id, free(one.id, taken.condition)]));
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
  for (const one of circuit.nodes) {
    const id = node.get(one.id)!;
    const known = shared.get(id);
    const access = (one.access ?? []).map((each) => ({
      ...each,
      place: place.get(each.place) ?? each.place,
    }));
    nodes.set(id, known ?? { ...one, id, ...(access.length > 0 ? { access } : {}) });
  }
  const reference = shared.get(first.reference);
  if (reference && minusIsBody) nodes.set(reference.id, reference);
  // What joins the vehicle's battery to its body comes along, so that the circuit works by itself.
  const earthWay = minusIsBody ? wayBetween(first, theirs?.pins.minus ?? first.reference, body) : [];
  for (const one of earthWay) {
    for (const at of Object.values(one.pins) as string[]) {
      const known = shared.get(at);
      if (known) nodes.set(at, known);
    }
  }
  const places = new Map<string, CircuitFile['places'][number]>();
  const wanted = new Set([
    ...[...nodes.values()].flatMap((one) => (one.access ?? []).map((each) => each.place)),
    ...[...parts, ...earthWay].flatMap((one) => (one.place === undefined ? [] : [one.place])),
  ]);
  for (const one of existing.flatMap((each) => each.places)) if (wanted.has(one.id)) places.set(one.id, one);
  for (const one of circuit.places) {
    const id = place.get(one.id)!;
    if (wanted.has(id)) places.set(id, { ...one, id });
  }
  return {
    ...circuit,
    id: free(circuit.id, taken.file),
    reference: first.reference,
    places: [...places.values()],
    nodes: [...nodes.values()],
    parts: [...parts, ...earthWay],
    conditions: circuit.conditions.map((one) => ({
      ...one,
      id: condition.get(one.id)!,
      ...(one.switches ? { switches: keys(one.switches)! } : {}),
      ...(one.pluggedIn ? { pluggedIn: keys(one.pluggedIn)! } : {}),
      ...(one.after === undefined ? {} : { after: condition.get(one.after) ?? one.after }),
    })),
    functions: circuit.functions.map((one) => ({
      ...one,
      id: free(one.id, taken.function),
      load: loadOf(one.load),
    })),
  };
}

/** Parts on the shortest way of conductors between two points; none where they are one or are not joined. */
function wayBetween(circuit: CircuitFile, from: string, to: string): CircuitPart[] {
  const before = new Map<string, { node: string; part: CircuitPart }>();
  const queue = [from];
  for (const node of queue) {
    if (node === to) break;
    for (const part of circuit.parts) {
      if (!['wire', 'ground', 'connector', 'splice'].includes(part.kind)) continue;
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
