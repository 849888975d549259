/** What a circuit draws with the key off, nothing switched on and everything asleep: part by part, the largest first. */
import { type CircuitModel, UNALTERED } from '../network';

export interface DrawAsleep {
  readonly part: string;
  readonly name: string;
  readonly amps: number;
}

/** Less than this nobody hunts, ampere. */
const LEAST_AMPS = 1e-4;

export function drawsAsleep(model: CircuitModel): DrawAsleep[] {
  const { network } = model;
  const point = model.solve(model.adopt({ key: 'off' }), UNALTERED);
  const sums = new Map<string, number>();
  network.branches.forEach(({ part, role }, index) => {
    if (role !== 'load' && role !== 'internal' && role !== 'coil') return;
    sums.set(part, (sums.get(part) ?? 0) + Math.abs(point.amps[index]!));
  });
  return [...sums]
    .filter(([, amps]) => amps >= LEAST_AMPS)
    .map(([part, amps]) => ({ part, name: network.parts.get(part)?.name ?? part, amps }))
    .sort((one, other) => other.amps - one.amps);
}
