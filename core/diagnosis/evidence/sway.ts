/** A coil so near its threshold that supply and coil ohms decide: the other way its contact may stand. */
import { normalBelow } from '../../limits';
import { type Alteration, type CircuitModel, combineAlterations, type OperatingPoint } from '../../network';

/** Spread of the volts at which a contact moves, coil and supply included, as a fraction. */
const PULL_SPREAD = 0.06;
/** A contact that is so unlikely to stand the other way is not followed. */
const SURE = 0.03;
/** The other way a contact near its threshold may stand: its chance, and the supply that brings it there. */
export interface Sway {
  readonly chance: number;
  readonly alteration: Alteration;
  readonly scale: number;
}

/**
 * The other way that the closest coil may stand, under an alteration that gives `point`; null where none is near. Only
 * the closest is followed. `sources` are the branches with volts of their own.
 */
export function findSway(
  model: CircuitModel,
  conditionId: string,
  own: Alteration,
  point: OperatingPoint,
  sources: readonly number[],
): Sway | null {
  const { network } = model;
  let nearest: { distance: number; threshold: number; felt: number; sensor: number } | null = null;
  network.sensors.forEach((sensor, s) => {
    if (sensor.senses !== 'volts') return;
    const felt = Math.abs(point.volts[sensor.a]! - point.volts[sensor.b]!);
    const threshold = point.sensed[s] === 1 ? sensor.offBelow : sensor.onAbove;
    if (felt < 0.05 || threshold <= 0) return;
    // A coil at rest pulls in or does not; one that holds was pulled in first, and so had to reach that.
    const decides = sensor.onAbove > 0 ? sensor.onAbove : threshold;
    const distance = Math.abs(Math.log(felt / decides));
    if (distance < 2 * PULL_SPREAD && (!nearest || distance < nearest.distance)) {
      nearest = { distance, threshold: decides, felt, sensor: s };
    }
  });
  if (!nearest) return null;
  const { distance, threshold, felt, sensor } = nearest as {
    distance: number;
    threshold: number;
    felt: number;
    sensor: number;
  };
  const chance = normalBelow(-distance / PULL_SPREAD);
  if (chance < SURE) return null;
  const scale = (threshold / felt) * (felt >= threshold ? 0.98 : 1.02);
  const changes = sources.map((branch) => ({
    branch,
    emfVolts: network.branches[branch]!.emfVolts * scale,
  }));
  const alteration = { changes, bridges: [] };
  const other = model.solve(conditionId, combineAlterations(own, alteration));
  return other.sensed[sensor] === point.sensed[sensor] ? null : { chance, alteration, scale };
}

/** The same state with every source scaled. */
export function scaledPoint(point: OperatingPoint, factor: number): OperatingPoint {
  return {
    ...point,
    volts: point.volts.map((one) => one * factor),
    amps: point.amps.map((one) => one * factor),
  };
}
