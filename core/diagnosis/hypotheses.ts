/** Everything that could be wrong: single faults that matter, a short with the fuse it blew, nothing, and the unmapped. */
import type { CircuitModel } from '../circuit/model';
import { faultId, faultsOfPart, withBlownFuses } from '../faults/enumerate';
import { type Fault, type FaultMode, faultAlteration, faultWords, OVERCURRENT_MODES } from '../faults/faults';
import { type Alteration, UNALTERED } from '../network/alteration';
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

function signature(model: CircuitModel, alteration: Alteration): string {
  return model.conditions
    .map((condition) => {
      const point = model.solve(condition.id, alteration);
      return model.circuit.functions.map((one) => model.outcome(one, point)).join(' ');
    })
    .join('/');
}

/** What would be repaired: a fault that blew a fuse has two remedies, and is a unit of its own. */
export function repairUnit(fault: Fault, blewFuse: boolean): string {
  return blewFuse && fault.mode !== 'wrong-rating' ? `short:${fault.part}` : fault.part;
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
      const blown = OVERCURRENT_MODES.has(fault.mode) ? withBlownFuses(model, fault) : null;
      if (blown) {
        if (signature(model, blown.alteration) === soundSignature) continue;
        kept.push({
          fault,
          hypothesis: {
            id: faultId(fault),
            faults: [fault, ...blown.fuses.map((fuse): Fault => ({ part: fuse, mode: 'open' }))],
            unit: repairUnit(fault, true),
            parts: [part.id, ...blown.fuses],
            alteration: blown.alteration,
            words: `${part.name}: ${faultWords(part, fault)}, blowing ${blown.fuses.map(nameOf).join(' and ')}`,
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
          unit: repairUnit(fault, false),
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
