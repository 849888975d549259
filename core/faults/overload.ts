/** Which fuses would open at an operating point, and what the circuit does after they have. */
import type { Network } from '../circuit/network';
import {
  type Alteration,
  type ConditionSolver,
  combineAlterations,
  type OperatingPoint,
} from '../network/solve';

/** Ratio of current to rating from which a blade fuse opens within minutes (ISO 8820-3, 135 %). */
export const OPENS_FROM = 1.35;

export interface Overload {
  readonly part: string;
  readonly branch: number;
  readonly amps: number;
  readonly ratingAmps: number;
}

/** Fuses and links that carry more than they hold, the most overloaded first. */
export function overloads(network: Network, point: OperatingPoint): Overload[] {
  const found: Overload[] = [];
  for (let index = 0; index < network.branches.length; index++) {
    const branch = network.branches[index]!;
    if (branch.role !== 'fuse') continue;
    const part = network.parts.get(branch.part);
    if (part?.kind !== 'fuse' && part?.kind !== 'fusible-link') continue;
    const amps = Math.abs(point.amps[index]!);
    if (amps > part.ratingAmps * OPENS_FROM) {
      found.push({ part: branch.part, branch: index, amps, ratingAmps: part.ratingAmps });
    }
  }
  return found.sort((x, y) => y.amps / y.ratingAmps - x.amps / x.ratingAmps);
}

/** Opens the most overloaded fuse, then the next, until none is overloaded. */
export function openOverloaded(
  solver: ConditionSolver,
  alteration: Alteration,
): { point: OperatingPoint; opened: readonly Overload[]; alteration: Alteration } {
  const opened: Overload[] = [];
  let current = alteration;
  for (;;) {
    const point = solver.solve(current);
    const worst = overloads(solver.network, point)[0];
    if (!worst) return { point, opened, alteration: current };
    opened.push(worst);
    current = combineAlterations(current, { changes: [{ branch: worst.branch, held: 'open' }], bridges: [] });
  }
}
