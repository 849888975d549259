/** Stretches of a circuit between what uses current and what protects it: what one fuse stands before. */
import { isProtector, type Protector } from '../../circuit';
import { type ByKind, byKind, type CircuitFile, type CircuitPart, type PartOf } from '../../format';

const everyPoint = ({ pins }: CircuitPart) => Object.values(pins) as string[];
const known = (points: readonly (string | undefined)[]) => points.filter((one) => one !== undefined);

/** Points that current passes between inside a part without being used or fused there. */
const PASSES: ByKind<string[]> = {
  battery: () => [],
  'charging-source': () => [],
  fuse: () => [],
  'fusible-link': () => [],
  breaker: () => [],
  polyfuse: () => [],
  wire: everyPoint,
  connector: everyPoint,
  splice: everyPoint,
  ground: () => [],
  switch: everyPoint,
  'key-contact': everyPoint,
  relay: ({ pins }) => known([pins['30'], pins['87'], pins['87a'], pins['87b']]),
  'latching-relay': ({ pins }) => known([pins['30'], pins['87'], pins['87a']]),
  solenoid: ({ pins }) => [pins.feed, pins.load],
  flasher: ({ pins }) => [pins['49'], pins['49a']],
  'cut-off': ({ pins }) => [pins.in, pins.out],
  'module-output': () => [],
  lamp: () => [],
  led: () => [],
  motor: () => [],
  pump: () => [],
  horn: () => [],
  heater: () => [],
  module: () => [],
  resistor: () => [],
  socket: () => [],
  diode: everyPoint,
};

/** Points that current passes between inside a part without being used or fused there. */
export function passes(part: CircuitPart): string[] {
  return byKind(PASSES, part);
}

export interface Region {
  readonly nodes: ReadonlySet<string>;
  readonly wires: readonly PartOf<'wire'>[];
  /** Fuses that feed it. */
  readonly fuses: readonly Protector[];
  /** Posts of batteries and charging sources in it. */
  readonly sources: readonly string[];
}

/** Points with those that parts join them to. */
export function meetings(circuit: CircuitFile): ReadonlyMap<string, readonly CircuitPart[]> {
  const meets = new Map<string, CircuitPart[]>();
  for (const part of circuit.parts) {
    for (const node of new Set(passes(part))) meets.set(node, [...(meets.get(node) ?? []), part]);
  }
  return meets;
}

/** Everything that a point reaches without going through a fuse or a load. */
export function reach(meets: ReadonlyMap<string, readonly CircuitPart[]>, from: string) {
  const nodes = new Set([from]);
  const inside = new Set<CircuitPart>();
  for (const node of nodes) {
    for (const part of meets.get(node) ?? []) {
      inside.add(part);
      for (const next of passes(part)) nodes.add(next);
    }
  }
  return { nodes, inside };
}

/** Stretches between fuses and loads, the earthed side left out. */
export function regionsOf(circuit: CircuitFile): Region[] {
  const meets = meetings(circuit);
  const seen = new Set<string>();
  const regions: Region[] = [];
  for (const { id } of circuit.nodes) {
    if (seen.has(id)) continue;
    const { nodes, inside } = reach(meets, id);
    for (const node of nodes) seen.add(node);
    const earthed =
      nodes.has(circuit.reference) ||
      circuit.parts.some((part) => part.kind === 'ground' && nodes.has(part.pins.lug));
    if (earthed) continue;
    regions.push({
      nodes,
      wires: [...inside].filter((part) => part.kind === 'wire'),
      fuses: circuit.parts.filter((part): part is Protector => isProtector(part) && nodes.has(part.pins.out)),
      sources: circuit.parts.flatMap((part) =>
        (part.kind === 'battery' || part.kind === 'charging-source') && nodes.has(part.pins.plus)
          ? [part.pins.plus]
          : [],
      ),
    });
  }
  return regions;
}
