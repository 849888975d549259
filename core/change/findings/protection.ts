/** Wires that the fuse before them does not protect: none at all, one too far off, or one above what the wire carries. */
import { type Protector, ratedAs } from '../../circuit';
import type { CircuitFile, PartOf } from '../../format';
import { deratedAmpacity, POLYFUSE_TRIPS_AT, UNFUSED_METRES, UNFUSED_SHEATHED_METRES } from '../../limits';
import { figure } from '../../sizing';
import type { Finding, FindingKind } from './finding';
import { passes, type Region, regionsOf } from './region';

interface Weak {
  readonly wire: PartOf<'wire'>;
  readonly why: 'unfused' | 'above';
  readonly fuse: Protector | null;
  /** From the source to its far end, metres; null where a length is not known. */
  readonly metres: number | null;
}

/** Metres of lead from a source to every point of its stretch; infinite where a length is not said. */
function metresFrom(circuit: CircuitFile, { nodes, sources }: Region): ReadonlyMap<string, number> {
  const metres = new Map(sources.map((node) => [node, 0]));
  const parts = circuit.parts.filter((part) => passes(part).some((node) => nodes.has(node)));
  for (let again = true; again; ) {
    again = false;
    for (const part of parts) {
      const length = part.kind === 'wire' ? (part.lengthMetres ?? Number.POSITIVE_INFINITY) : 0;
      const ends = passes(part);
      const nearest = Math.min(...ends.map((node) => metres.get(node) ?? Number.POSITIVE_INFINITY));
      for (const node of ends) {
        const here = nearest + length;
        if (here < (metres.get(node) ?? Number.POSITIVE_INFINITY)) {
          metres.set(node, here);
          again = true;
        }
      }
    }
  }
  return metres;
}

function weakIn(circuit: CircuitFile): Weak[] {
  return regionsOf(circuit).flatMap((region): Weak[] => {
    const { wires, fuses, sources } = region;
    const largest = fuses.reduce<Protector | null>(
      (most, one) => ((ratedAs(one) ?? 0) > (most ? (ratedAs(most) ?? 0) : 0) ? one : most),
      null,
    );
    const far = sources.length > 0 ? metresFrom(circuit, region) : null;
    return wires.flatMap((wire): Weak[] => {
      if (far) {
        const ends = [far.get(wire.pins.a), far.get(wire.pins.b)].map(
          (one) => one ?? Number.POSITIVE_INFINITY,
        );
        const metres = Math.min(...ends) + (wire.lengthMetres ?? Number.POSITIVE_INFINITY);
        const most = wire.sheathed ? UNFUSED_SHEATHED_METRES : UNFUSED_METRES;
        if (metres > most + 1e-9)
          return [{ wire, why: 'unfused', fuse: null, metres: Number.isFinite(metres) ? metres : null }];
      }
      const carries = wire.sizeMm2 === undefined ? null : deratedAmpacity(wire.sizeMm2, wire);
      return carries !== null && largest && (ratedAs(largest) ?? 0) > carries
        ? [{ wire, why: 'above', fuse: largest, metres: null }]
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
      .map(({ wire, why, fuse, metres }): Finding => {
        if (why === 'unfused') {
          return {
            kind: 'protection',
            level: 'danger',
            words: `${wire.name} hangs on a source without a fuse${metres === null ? ', over a length that nobody has said' : ` over ${figure(metres, 'm')}`}: a short burns it.`,
            at: null,
            path: [wire.id],
            amount: null,
            remedy: `A fuse within ${UNFUSED_METRES * 1000} mm of the source, no larger than what the wire carries. Sheathed all the way, small craft allow up to ${UNFUSED_SHEATHED_METRES} m from the battery’s own terminal; local rules first.`,
          };
        }
        const carries = deratedAmpacity(wire.sizeMm2!, wire);
        return {
          kind: 'protection',
          level: 'danger',
          words: `${fuse!.name} of ${figure(fuse!.ratingAmps!, 'A')}${fuse!.kind === 'polyfuse' ? `, which trips from ${figure(fuse!.ratingAmps * POLYFUSE_TRIPS_AT, 'A')},` : ''} stands before ${wire.name}, which carries ${figure(carries, 'A')}${wire.bundled ? ' where it lies' : ''}: it does not protect it.`,
          at: null,
          path: [fuse!.id, wire.id],
          amount: { value: fuse!.ratingAmps!, unit: 'A' },
          remedy: `A fuse of no more than ${figure(carries, 'A')} before it, or a thicker wire.`,
        };
      });
  },
};
