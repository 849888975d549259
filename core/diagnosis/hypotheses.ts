/** Everything that could be wrong: single faults that matter, a short with the fuse it blew, nothing, and the unmapped. */
import type { CircuitModel } from '../circuit/model';
import { type Fault, type FaultMode, faultAlteration, faultModes, faultWords } from '../faults/faults';
import { openOverloaded } from '../faults/overload';
import type { CircuitPart } from '../format/circuitSchema';
import { type Alteration, UNALTERED } from '../network/solve';
import { priorWeight } from './priors';

export interface Hypothesis {
  readonly id: string;
  readonly faults: readonly Fault[];
  /** What would be repaired: hypotheses of one unit have one remedy. */
  readonly unit: string;
  readonly parts: readonly string[];
  readonly prior: number;
  /** Null where the map cannot predict. */
  readonly alteration: Alteration | null;
  /** "Fuse 31 (15 A): blown". */
  readonly words: string;
}

export const NO_FAULT = 'none';
export const NOT_IN_MAP = 'not-in-map';
/** Chance before any reading that the fault lies in something nobody drew. */
export const NOT_IN_MAP_PRIOR = 0.03;
/** Chance before any reading that nothing is wrong but the use of it. */
export const NO_FAULT_PRIOR = 0.02;

/**
 * Current is cut to these fractions by the two magnitudes of a bad joint: one that leaves the load weak,
 * one that leaves it dead.
 */
const RESISTANCE_FRACTIONS = [0.6, 0.12] as const;

function largestCurrent(model: CircuitModel, branches: readonly number[]): number {
  let largest = 0;
  for (const condition of model.conditions) {
    const point = model.sound(condition.id);
    for (const branch of branches) largest = Math.max(largest, Math.abs(point.amps[branch]!));
  }
  return largest;
}

/** All fault forms of a part, magnitudes chosen by its own current. */
export function faultsOfPart(model: CircuitModel, part: CircuitPart): Fault[] {
  const { network } = model;
  const branches = network.branchesOfPart.get(part.id) ?? [];
  const faults: Fault[] = [];
  for (const mode of faultModes(part)) {
    const split =
      part.kind === 'splice' ||
      ((part.kind === 'switch' || part.kind === 'relay') &&
        mode.startsWith('contact') &&
        branches.filter((index) => network.branches[index]!.role === 'contact').length > 1);
    const labels = split
      ? branches
          .filter((index) => part.kind === 'splice' || network.branches[index]!.role === 'contact')
          .map((index) => network.branches[index]!.label)
      : [undefined];
    for (const branch of labels) {
      const where = branch ? { branch } : {};
      if (mode === 'high-resistance' || mode === 'contact-resistance') {
        const indices = branches.filter((index) => {
          const one = network.branches[index]!;
          if (branch) return one.label === branch;
          return mode === 'high-resistance' || one.role === 'contact';
        });
        const amps = largestCurrent(model, indices);
        if (amps < 0.005) continue;
        const total = model.emfVolts / amps;
        for (const fraction of RESISTANCE_FRACTIONS) {
          const ohms = Number((total * (1 / fraction - 1)).toPrecision(2));
          faults.push({ part: part.id, mode, ohms, ...where });
        }
      } else faults.push({ part: part.id, mode, ...where });
    }
  }
  return faults;
}

function signature(model: CircuitModel, alteration: Alteration): string {
  return model.conditions
    .map((condition) => {
      const point = model.solve(condition.id, alteration);
      return model.circuit.functions.map((one) => model.outcome(one, point)).join(' ');
    })
    .join('/');
}

export function faultId(fault: Fault): string {
  return [fault.part, fault.mode, fault.branch, fault.ohms].filter((one) => one !== undefined).join(':');
}

/** A short together with every fuse it opens, in the order they open; null where no fuse opens. */
export function shortWithFuses(
  model: CircuitModel,
  fault: Fault,
): { alteration: Alteration; fuses: readonly string[] } | null {
  let alteration = faultAlteration(model.network, fault);
  const fuses: string[] = [];
  for (const condition of model.conditions) {
    const result = openOverloaded(model.solver(condition.id), alteration);
    alteration = result.alteration;
    for (const opened of result.opened) if (!fuses.includes(opened.part)) fuses.push(opened.part);
  }
  return fuses.length > 0 ? { alteration, fuses } : null;
}

/** Builds the list; faults that change no function in any condition are left out. */
export function buildHypotheses(model: CircuitModel): Hypothesis[] {
  const { network, circuit } = model;
  const soundSignature = signature(model, UNALTERED);
  const weighted: (Hypothesis & { weight: number })[] = [];
  const nameOf = (id: string) => network.parts.get(id)?.name ?? id;
  for (const part of circuit.parts) {
    const faults = faultsOfPart(model, part);
    const kept: { fault: Fault; hypothesis: Omit<Hypothesis, 'prior'> }[] = [];
    for (const fault of faults) {
      if (fault.mode === 'short-to-earth') {
        const short = shortWithFuses(model, fault);
        if (!short || signature(model, short.alteration) === soundSignature) continue;
        kept.push({
          fault,
          hypothesis: {
            id: faultId(fault),
            faults: [fault, ...short.fuses.map((fuse): Fault => ({ part: fuse, mode: 'open' }))],
            unit: `short:${part.id}`,
            parts: [part.id, ...short.fuses],
            alteration: short.alteration,
            words: `${part.name}: shorted to earth, blowing ${short.fuses.map(nameOf).join(' and ')}`,
          },
        });
        continue;
      }
      const alteration = faultAlteration(network, fault);
      if (signature(model, alteration) === soundSignature) continue;
      kept.push({
        fault,
        hypothesis: {
          id: faultId(fault),
          faults: [fault],
          unit: part.id,
          parts: [part.id],
          alteration,
          words: `${part.name}: ${faultWords(part, fault)}`,
        },
      });
    }
    const perMode = new Map<FaultMode, number>();
    for (const { fault } of kept) perMode.set(fault.mode, (perMode.get(fault.mode) ?? 0) + 1);
    for (const { fault, hypothesis } of kept) {
      const weight = priorWeight(part.kind, fault.mode) / (perMode.get(fault.mode) ?? 1);
      weighted.push({ ...hypothesis, prior: 0, weight });
    }
  }
  const total = weighted.reduce((sum, one) => sum + one.weight, 0) || 1;
  const share = 1 - NOT_IN_MAP_PRIOR - NO_FAULT_PRIOR;
  return [
    ...weighted.map(({ weight, ...hypothesis }) => ({
      ...hypothesis,
      prior: (weight / total) * share,
    })),
    {
      id: NO_FAULT,
      faults: [],
      unit: NO_FAULT,
      parts: [],
      prior: NO_FAULT_PRIOR,
      alteration: UNALTERED,
      words: 'Nothing is wrong in the map: key or switch not where it was believed to be',
    },
    {
      id: NOT_IN_MAP,
      faults: [],
      unit: NOT_IN_MAP,
      parts: [],
      prior: NOT_IN_MAP_PRIOR,
      alteration: null,
      words: 'Not in this map: a splice, feed or part that nobody drew',
    },
  ];
}
