/** What a change concerns, for a drawing that can be read: what it touches, with the way from the source and back to it. */
import type { CircuitFile, CircuitPart } from '../format';

/** Pairs of points that a part joins: contacts and coil of a relay have nothing to do with each other. */
function ways(part: CircuitPart): readonly (readonly [string, string])[] {
  const pins = part.pins as Readonly<Record<string, string | undefined>>;
  const pairs = (list: readonly (string | undefined)[]) => {
    const known = list.filter((one): one is string => one !== undefined);
    return known.slice(1).map((other) => [known[0]!, other] as const);
  };
  if (part.kind === 'relay')
    return [...pairs([pins['30'], pins['87'], pins['87a'], pins['87b']]), ...pairs([pins['86'], pins['85']])];
  if (part.kind === 'solenoid')
    return [...pairs([pins.feed, pins.load]), ...pairs([pins.control, pins.return])];
  return pairs(Object.values(pins));
}

/** Parts of a circuit that some of its parts, by id, have on their nearest way from a source and back to the reference. */
export function concerned(circuit: CircuitFile, touched: readonly string[]): ReadonlySet<string> {
  const joins = new Map<string, { readonly to: string; readonly part: string }[]>();
  for (const part of circuit.parts) {
    if (part.kind === 'battery' || part.kind === 'charging-source') continue;
    for (const [a, b] of ways(part)) {
      joins.set(a, [...(joins.get(a) ?? []), { to: b, part: part.id }]);
      joins.set(b, [...(joins.get(b) ?? []), { to: a, part: part.id }]);
    }
  }
  /** For every point the part by which it is nearest to one of the ends. */
  const nearest = (ends: readonly string[]) => {
    const by = new Map<string, { readonly to: string; readonly part: string } | null>(
      ends.map((end) => [end, null]),
    );
    for (const node of by.keys()) {
      for (const { to, part } of joins.get(node) ?? []) if (!by.has(to)) by.set(to, { to: node, part });
    }
    return by;
  };
  const sources = circuit.parts.flatMap((part) =>
    part.kind === 'battery' || part.kind === 'charging-source' ? [part.pins.plus] : [],
  );
  const found = new Set(circuit.parts.filter(({ kind }) => kind === 'battery').map(({ id }) => id));
  const trees = [nearest(sources), nearest([circuit.reference])];
  for (const part of circuit.parts) {
    if (!touched.includes(part.id)) continue;
    found.add(part.id);
    for (const node of Object.values(part.pins) as string[]) {
      for (const by of trees) {
        for (let at = by.get(node); at; at = by.get(at.to)) found.add(at.part);
      }
    }
  }
  return found;
}

/** A circuit reduced to some of its parts, with the points and functions that belong to them. */
export function reducedTo(circuit: CircuitFile, parts: ReadonlySet<string>): CircuitFile {
  const kept = circuit.parts.filter(({ id }) => parts.has(id));
  const points = new Set([
    circuit.reference,
    ...kept.flatMap((part) => Object.values(part.pins) as string[]),
  ]);
  return {
    ...circuit,
    parts: kept,
    nodes: circuit.nodes.filter(({ id }) => points.has(id)),
    functions: circuit.functions.filter(({ load }) => parts.has(load.split(':')[0]!)),
  };
}
