/** Which fuses would open at an operating point, how soon, and what the circuit does after they have. */

import type { Network } from '../circuit';
import { OPENS_FROM, UNKNOWN_FUSE_HOLDS_AMPS } from '../limits';
import {
  type Alteration,
  type CircuitModel,
  combineAlterations,
  type OperatingPoint,
  UNALTERED,
} from '../network';
import { type OpeningTime, openingTime } from './openingTime';

/**
 * More than its loads draw, ampere, that no source gives for a minute: a fuse opens, a wire burns through or the
 * battery is empty before, so that nobody meets a circuit in that state.
 */
const BURNS_FROM_AMPS = 100;

export interface Overload {
  /** The fuse; `jumper` for the fuse in a fused lead. */
  readonly part: string;
  /** Its branch, or -1 and the number of its bridge. */
  readonly branch: number;
  readonly bridge: number;
  readonly amps: number;
  /** Null where nobody has read it: a fuse that would open whatever its rating. */
  readonly ratingAmps: number | null;
  /** Null where the family has no public band. */
  readonly opens: OpeningTime | null;
}

/** Fuses and links that carry more than they hold, the most overloaded first; ratings as altered. */
export function overloads(
  network: Network,
  point: OperatingPoint,
  { ratings = [], bridges }: Pick<Alteration, 'ratings' | 'bridges'> = UNALTERED,
): Overload[] {
  const found: Overload[] = [];
  bridges.forEach(({ fuseAmps }, bridge) => {
    const amps = Math.abs(point.amps[network.branches.length + bridge]!);
    if (fuseAmps === undefined || amps <= fuseAmps * OPENS_FROM) return;
    const opens = openingTime(amps / fuseAmps, 'regular');
    found.push({ part: 'jumper', branch: -1, bridge, amps, ratingAmps: fuseAmps, opens });
  });
  for (let index = 0; index < network.branches.length; index++) {
    const branch = network.branches[index]!;
    if (branch.role !== 'fuse') continue;
    const part = network.parts.get(branch.part);
    if (part?.kind !== 'fuse' && part?.kind !== 'fusible-link') continue;
    const ratingAmps = ratings.find((one) => one.branch === index)?.amps ?? part.ratingAmps ?? null;
    const holdsAmps = ratingAmps ?? UNKNOWN_FUSE_HOLDS_AMPS;
    const amps = Math.abs(point.amps[index]!);
    if (amps > holdsAmps * OPENS_FROM) {
      const family = ratingAmps === null ? 'unknown' : part.kind === 'fuse' ? part.family : part.kind;
      found.push({
        part: branch.part,
        branch: index,
        bridge: -1,
        amps,
        ratingAmps,
        opens: openingTime(amps / holdsAmps, family),
      });
    }
  }
  const load = (one: Overload) => one.amps / (one.ratingAmps ?? UNKNOWN_FUSE_HOLDS_AMPS);
  // Of two whose ratings nobody knows the one further down opens: fuses grow smaller from the battery on.
  return found.sort((x, y) => load(y) - load(x) || y.branch - x.branch);
}

/** Opens the most overloaded fuse, then the next, until none is overloaded; fused leads included. */
export function openOverloaded(
  model: CircuitModel,
  conditionId: string,
  alteration: Alteration,
  after?: string,
): { point: OperatingPoint; opened: readonly Overload[]; alteration: Alteration } {
  const opened: Overload[] = [];
  let current = alteration;
  for (;;) {
    const point = model.solve(conditionId, current, after);
    const worst = overloads(model.network, point, current)[0];
    if (!worst) return { point, opened, alteration: current };
    opened.push(worst);
    current =
      worst.bridge >= 0
        ? { ...current, bridges: current.bridges.filter((_, k) => k !== worst.bridge) }
        : combineAlterations(current, { changes: [{ branch: worst.branch, held: 'open' }], bridges: [] });
  }
}

/** Whether a circuit altered so would burn in some condition: a dead short that no fuse ends. */
export function burns(model: CircuitModel, alteration: Alteration): boolean {
  const drawn = (point: OperatingPoint) =>
    model.network.branches.reduce(
      (most, { role }, index) => (role === 'source' ? Math.max(most, Math.abs(point.amps[index]!)) : most),
      0,
    );
  return model.conditions.some(
    ({ id }) => drawn(model.solve(id, alteration)) > drawn(model.sound(id)) + BURNS_FROM_AMPS,
  );
}
