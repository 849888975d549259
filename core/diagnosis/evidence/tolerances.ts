/** How far the resistances of a sound circuit may lie from what is drawn. */
import { type BranchRole, guessTolerance } from '../../circuit';
import { LIMIT_DEVIATIONS, mayLose } from '../../limits';
import type { CircuitModel } from '../../network';
import { RESISTANCE_TOLERANCE } from '../kinds/volts';

/** Relative tolerance of the inner resistance of a source: new and warm, or years old and cold. */
const SOURCE_TOLERANCE = 1;
/** What loses volts at its ends and is sound all the same. */
const JOINTS: ReadonlySet<BranchRole> = new Set(['conductor', 'contact', 'earth']);
/** Below this a branch carries nothing that a joint would be judged by, ampere. */
const LEAST_WORKING_AMPS = 0.02;

/**
 * Relative tolerance of every resistance, one standard deviation. A sound joint is sound up to what the trade lets it
 * lose at its working current, whatever ohms are drawn.
 */
export function tolerances(model: CircuitModel): Float64Array {
  const { branches, parts } = model.network;
  const working = new Float64Array(branches.length);
  for (const { id } of model.conditions) {
    const { amps } = model.sound(id);
    for (let k = 0; k < working.length; k++) working[k] = Math.max(working[k]!, Math.abs(amps[k]!));
  }
  return Float64Array.from(branches, ({ role, part: id, ohms }, k) => {
    if (role === 'source') return SOURCE_TOLERANCE;
    const part = parts.get(id)!;
    const drawn = guessTolerance(part, role) ?? RESISTANCE_TOLERANCE;
    if (!JOINTS.has(role) || working[k]! < LEAST_WORKING_AMPS || ohms <= 0) return drawn;
    const limit = mayLose(part.kind, working[k]!, model.circuit.nominalVolts);
    return Math.max(drawn, limit / LIMIT_DEVIATIONS / (working[k]! * ohms));
  });
}
