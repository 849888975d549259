/** Wires that the fuse before them does not protect: none at all, or one above what the wire carries. */
import type { CircuitFile, CircuitPart, PartOf } from '../../format';
import { ampacity } from '../../limits';
import { figure } from '../../sizing';
import type { Finding, FindingKind } from './finding';

/** A lead from a source is fused within so much of it, metres. */
const UNFUSED_METRES = 0.18;

/** Points that current passes between inside a part without being used or fused there. */
function passes(part: CircuitPart): string[] {
  const pins = part.pins as Readonly<Record<string, string | undefined>>;
  switch (part.kind) {
    case 'wire':
    case 'connector':
    case 'splice':
    case 'switch':
    case 'key-contact':
    case 'diode':
      return Object.values(part.pins) as string[];
    case 'relay':
    case 'latching-relay':
      return [pins['30'], pins['87'], pins['87a'], pins['87b']].filter((pin) => pin !== undefined);
    case 'solenoid':
      return [part.pins.feed, part.pins.load];
    case 'cut-off':
      return [part.pins.in, part.pins.out];
    case 'flasher':
      return [part.pins['49'], part.pins['49a']];
    default:
      return [];
  }
}

interface Region {
  readonly nodes: ReadonlySet<string>;
  readonly wires: readonly PartOf<'wire'>[];
  /** Fuses that feed it. */
  readonly fuses: readonly PartOf<'fuse' | 'fusible-link' | 'breaker'>[];
  readonly source: boolean;
}

/** Stretches between fuses and loads, the earthed side left out. */
function regionsOf(circuit: CircuitFile): Region[] {
  const meets = new Map<string, CircuitPart[]>();
  for (const part of circuit.parts) {
    for (const node of passes(part)) meets.set(node, [...(meets.get(node) ?? []), part]);
  }
  const seen = new Set<string>();
  const regions: Region[] = [];
  for (const { id } of circuit.nodes) {
    if (seen.has(id)) continue;
    const nodes = new Set([id]);
    const inside = new Set<CircuitPart>();
    for (const node of nodes) {
      for (const part of meets.get(node) ?? []) {
        inside.add(part);
        for (const next of passes(part)) nodes.add(next);
      }
    }
    for (const node of nodes) seen.add(node);
    const earthed =
      nodes.has(circuit.reference) ||
      circuit.parts.some((part) => part.kind === 'ground' && nodes.has(part.pins.lug));
    if (earthed) continue;
    regions.push({
      nodes,
      wires: [...inside].filter((part) => part.kind === 'wire'),
      fuses: circuit.parts.filter(
        (part): part is Region['fuses'][number] =>
          (part.kind === 'fuse' || part.kind === 'fusible-link' || part.kind === 'breaker') &&
          nodes.has(part.pins.out),
      ),
      source: circuit.parts.some(
        (part) => (part.kind === 'battery' || part.kind === 'charging-source') && nodes.has(part.pins.plus),
      ),
    });
  }
  return regions;
}

interface Weak {
  readonly wire: PartOf<'wire'>;
  readonly why: 'unfused' | 'above';
  readonly fuse: Region['fuses'][number] | null;
}

function weakIn(circuit: CircuitFile): Weak[] {
  return regionsOf(circuit).flatMap(({ wires, fuses, source }) => {
    const largest = fuses.reduce<Region['fuses'][number] | null>(
      (most, one) => ((one.ratingAmps ?? 0) > (most?.ratingAmps ?? 0) ? one : most),
      null,
    );
    return wires.flatMap((wire): Weak[] => {
      if (source && (wire.lengthMetres ?? Number.POSITIVE_INFINITY) > UNFUSED_METRES) {
        return [{ wire, why: 'unfused', fuse: null }];
      }
      const carries = wire.sizeMm2 === undefined ? null : ampacity(wire.sizeMm2);
      return carries !== null && largest && (largest.ratingAmps ?? 0) > carries
        ? [{ wire, why: 'above', fuse: largest }]
        : [];
    });
  });
}

export const protection: FindingKind = {
  name: 'protection',
  find: ({ before, after }) => {
    const known = new Set(weakIn(before).map(({ wire, why }) => `${wire.id} ${why}`));
    return weakIn(after)
      .filter(({ wire, why }) => !known.has(`${wire.id} ${why}`))
      .map(({ wire, why, fuse }): Finding => {
        if (why === 'unfused') {
          return {
            kind: 'protection',
            danger: true,
            words: `${wire.name} hangs on a source without a fuse${wire.lengthMetres === undefined ? '' : ` over ${wire.lengthMetres} m`}: a short burns it.`,
            at: null,
            path: [wire.id],
            amount: null,
            remedy: 'A fuse within 180 mm of the source, no larger than what the wire carries.',
          };
        }
        const carries = ampacity(wire.sizeMm2!);
        return {
          kind: 'protection',
          danger: true,
          words: `${fuse!.name} of ${figure(fuse!.ratingAmps!, 'A')} stands before ${wire.name}, which carries ${figure(carries, 'A')}: it does not protect it.`,
          at: null,
          path: [fuse!.id, wire.id],
          amount: { value: fuse!.ratingAmps!, unit: 'A' },
          remedy: `A fuse of no more than ${figure(carries, 'A')} before it, or a thicker wire.`,
        };
      });
  },
};
