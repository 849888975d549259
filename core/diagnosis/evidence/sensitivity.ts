/**
 * How the volts of a test move with the tolerances of every resistance, of the fault's own size and of the supply. By
 * reciprocity: a small current put through the points flows through every resistance in proportion to what that
 * resistance matters (Director and Rohrer, "The generalized adjoint network", 1969).
 */
import { type FaultMode, faultAlteration, RESISTANCE_MODES } from '../../faults';
import { METER_OHMS } from '../../limits';
import { type Alteration, type CircuitModel, combineAlterations, type OperatingPoint } from '../../network';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { nodeIndex, type RefOf } from '../kinds/kind';
import { EMF_SPREAD } from './voltsPrediction';

/** Spread of the ohms of a fault itself, on a logarithmic scale: its size is known to a factor of two. */
const FAULT_TOLERANCE = 0.7;
/** Spread of the volts of a battery whose level is the fault: from one level of the list to the next. */
const LEVEL_SPREAD = 0.08;
/** And of one that resists inside: it may rest at its usual volts or below. */
const WEAK_SPREAD = 0.03;
/** Probe currents, ampere; the first that moves no contact is taken. Behind an input even a milliampere lifts volts. */
const PROBE_AMPS = [1e-3, 1e-6, 1e-8];

/** Faults that come in every size of a resistance. */
const SIZED_MODES: ReadonlySet<FaultMode> = new Set([...RESISTANCE_MODES, 'weak', 'flat']);

/** Spread of the share of the time for which a chattering contact is closed, about a half. */
export const DUTY_SPREAD = 0.15;

/**
 * How volts move with the unknown tolerances: volts per standard deviation, by branch; then the supply, and last how
 * long a contact that chatters is closed.
 */
export interface Sensitivity {
  readonly index: Int32Array;
  readonly volts: Float64Array;
}

/** How far the supply may lie from what a hypothesis supposes, as a fraction, one standard deviation. */
export function supplySpread({ faults }: Hypothesis): number {
  if (faults.some((fault) => fault.volts !== undefined)) return LEVEL_SPREAD;
  return faults.some((fault) => fault.mode === 'weak') ? WEAK_SPREAD : EMF_SPREAD;
}

/** Unknowns that volts may move with, branches included. */
export function unknownCount({ network }: CircuitModel): number {
  return network.branches.length + 2;
}

/** Where a contact chatters, how long it is closed decides, for all points together, and hardly anything else. */
export function swayOfDuty(
  { network }: CircuitModel,
  hypothesis: Hypothesis,
  mean: number,
  swing: number,
): Sensitivity {
  const supply = network.branches.length;
  return {
    index: Int32Array.of(supply, supply + 1),
    volts: Float64Array.of(mean * supplySpread(hypothesis), DUTY_SPREAD * swing),
  };
}

/** The state in which a hypothesis is asked. */
export interface AskedState {
  readonly hypothesis: Hypothesis;
  /** Faults of the hypothesis, and what the test itself changes. */
  readonly altered: Alteration;
  readonly point: OperatingPoint;
  /** Nodes that only leakage decides, 1 for each. */
  readonly hangs: Uint8Array;
}

/** Null where the points hang, or where every current moves a contact. `mean` is what the volts are, `tolerance` by branch. */
export function sensitivityOf(
  model: CircuitModel,
  ref: RefOf<'volts'>,
  { hypothesis, altered, point, hangs }: AskedState,
  mean: number,
  tolerance: Float64Array,
): Sensitivity | null {
  const { network } = model;
  const a = nodeIndex(model, ref.node);
  const b = nodeIndex(model, ref.against);
  if (hangs[a] !== 0 || hangs[b] !== 0) return null;
  const probed = probe(model, ref, altered, a, b, point);
  if (!probed) return null;
  const index: number[] = [];
  const volts: number[] = [];
  const faulty = new Map<number, number>();
  for (const fault of hypothesis.faults) {
    if (!SIZED_MODES.has(fault.mode)) continue;
    for (const { branch, ohms } of faultAlteration(network, fault).changes) {
      if (ohms !== undefined) faulty.set(branch, fault.ohms ?? ohms);
    }
  }
  network.branches.forEach((branch, k) => {
    const amps = point.amps[k]!;
    if (amps === 0) return;
    const through = (probed.point.amps[k]! - amps) / probed.amps;
    const ohms = faulty.get(k);
    const sigma = ohms === undefined ? tolerance[k]! * branch.ohms : FAULT_TOLERANCE * ohms;
    const moved = sigma * amps * through;
    if (Math.abs(moved) > 1e-3) {
      index.push(k);
      volts.push(moved);
    }
  });
  index.push(network.branches.length);
  volts.push(mean * supplySpread(hypothesis));
  return { index: Int32Array.from(index), volts: Float64Array.from(volts) };
}

/** The state with a current put through two points that moves no contact; null where every current moves one. */
function probe(
  model: CircuitModel,
  ref: RefOf<'volts'>,
  altered: Alteration,
  a: number,
  b: number,
  still: OperatingPoint,
) {
  for (const amps of PROBE_AMPS) {
    const bridges = [{ a, b, ohms: METER_OHMS, emfVolts: amps * METER_OHMS }];
    const point = model.solve(ref.condition, combineAlterations(altered, { changes: [], bridges }));
    if (point.sensed.every((state, sensor) => state === still.sensed[sensor])) return { amps, point };
  }
  return null;
}
