/**
 * Every fault of a circuit, with magnitudes chosen by the part's own current so that each one matters, and
 * overcurrent faults together with the fuses they open.
 */

import type { CircuitPart } from '../format';
import { OPENS_FROM } from '../limits';
import type { Alteration, CircuitModel } from '../network';
import {
  type Fault,
  type FaultMode,
  faultAlteration,
  faultBranches,
  faultModes,
  RESISTANCE_MODES,
} from './faults';
import { openOverloaded } from './overload';

/**
 * Current is cut to these fractions by the two magnitudes of a bad joint: one that leaves the load weak,
 * one that leaves it dead.
 */
export const RESISTANCE_FRACTIONS = [0.7, 0.5, 0.3, 0.12] as const;
/** Shares of its own volts that a low battery may have left: a step from one to the next is what nobody tells apart. */
const SUPPLY_SHARES = [0.92, 0.84, 0.75, 0.64, 0.52, 0.4, 0.28, 0.16] as const;
/** Current is cut to these fractions by a battery that resists inside. */
const INNER_FRACTIONS = [0.9, 0.75, 0.55, 0.35, 0.15] as const;
/** Below this current no resistance of a joint matters to anybody, ampere. */
const SLIGHT_AMPS = 0.005;
/** Ratings that blade fuses are sold in, ampere. */
const BLADE_RATINGS = [1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 35, 40] as const;

/** Largest current through any of the branches in any condition of the sound circuit, ampere. */
export function largestCurrent(model: CircuitModel, branches: readonly number[]): number {
  let largest = 0;
  for (const condition of model.conditions) {
    const point = model.sound(condition.id);
    for (const branch of branches) largest = Math.max(largest, Math.abs(point.amps[branch]!));
  }
  return largest;
}

/** Labels of the branches that a mode can strike one at a time; none where it strikes the part as a whole. */
function separateBranches(model: CircuitModel, part: CircuitPart, mode: FaultMode): (string | undefined)[] {
  if (mode === 'wrong-part' || mode === 'not-fitted') return [undefined];
  const branches = faultBranches(model.network, { part: part.id, mode });
  const striking = part.kind === 'splice' || mode.startsWith('contact') || mode.startsWith('coil');
  return striking && branches.length > 1
    ? branches.map((index) => model.network.branches[index]!.label)
    : [undefined];
}

/** The fuse rating below the wanted one that opens at the current the fuse carries, ampere; null when none. */
function tooSmallRating(amps: number, ratingAmps: number, opensFrom: number): number | null {
  const small = BLADE_RATINGS.filter((rating) => rating < ratingAmps && rating * opensFrom < amps);
  return small.at(-1) ?? null;
}

/** A battery that is low by its level, a weak one by what it resists inside: what its volts and its load's current make. */
function sizesOfBattery(model: CircuitModel, fault: Fault, indices: readonly number[]): Fault[] {
  const emfVolts = Math.max(...indices.map((index) => model.network.branches[index]!.emfVolts));
  if (fault.mode === 'flat') {
    return SUPPLY_SHARES.map((share) => ({ ...fault, volts: Number((share * emfVolts).toPrecision(3)) }));
  }
  const amps = largestCurrent(model, indices);
  if (amps < SLIGHT_AMPS) return [];
  return INNER_FRACTIONS.map((fraction) => ({
    ...fault,
    ohms: Number(((emfVolts / amps) * (1 / fraction - 1)).toPrecision(2)),
  }));
}

/** All fault forms of a part, magnitudes chosen by its own current. */
export function faultsOfPart(model: CircuitModel, part: CircuitPart): Fault[] {
  const faults: Fault[] = [];
  for (const mode of faultModes(part)) {
    for (const branch of separateBranches(model, part, mode)) {
      const fault: Fault = { part: part.id, mode, ...(branch ? { branch } : {}) };
      const indices = faultBranches(model.network, fault);
      if (part.kind === 'battery') faults.push(...sizesOfBattery(model, fault, indices));
      else if (RESISTANCE_MODES.has(mode)) {
        const amps = largestCurrent(model, indices);
        if (amps < SLIGHT_AMPS) continue;
        const total = model.emfVolts / amps;
        for (const fraction of RESISTANCE_FRACTIONS) {
          faults.push({ ...fault, ohms: Number((total * (1 / fraction - 1)).toPrecision(2)) });
        }
      } else if (mode === 'wrong-rating' && part.kind === 'fuse') {
        if (part.ratingAmps === undefined) continue;
        const rating = tooSmallRating(largestCurrent(model, indices), part.ratingAmps, OPENS_FROM);
        if (rating !== null) faults.push({ ...fault, amps: rating });
      } else faults.push(fault);
    }
  }
  return faults;
}

/** One text for one fault. */
export function faultId(fault: Fault): string {
  return [fault.part, fault.mode, fault.branch, fault.ohms ?? fault.amps ?? fault.volts]
    .filter((one) => one !== undefined)
    .join(':');
}

/** A fault together with every fuse it opens in any condition, in the order they open; null where none opens. */
export function withBlownFuses(
  model: CircuitModel,
  fault: Fault,
): { alteration: Alteration; fuses: readonly string[] } | null {
  let alteration = faultAlteration(model.network, fault);
  const fuses: string[] = [];
  for (const condition of model.conditions) {
    const result = openOverloaded(model, condition.id, alteration);
    alteration = result.alteration;
    for (const opened of result.opened) if (!fuses.includes(opened.part)) fuses.push(opened.part);
  }
  return fuses.length > 0 ? { alteration, fuses } : null;
}
