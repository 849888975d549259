/** A circuit that really has faults, with the fuses they have blown: what instruments are held against. */

import { type Alteration, type CircuitModel, combineAlterations } from '../network';
import { type Fault, faultAlteration, OPEN_MODES } from './faults';
import { openOverloaded } from './overload';

export interface FaultyCircuit {
  readonly model: CircuitModel;
  readonly faults: readonly Fault[];
  /** The faults and every fuse they have blown. */
  readonly alteration: Alteration;
  readonly blown: readonly string[];
}

/** Puts faults into a circuit and lets the fuses open that cannot stand them. */
export function breakCircuit(model: CircuitModel, faults: readonly Fault[]): FaultyCircuit {
  let alteration = combineAlterations(...faults.map((fault) => faultAlteration(model.network, fault)));
  const blown: string[] = [];
  for (const condition of model.conditions) {
    const result = openOverloaded(model, condition.id, alteration);
    alteration = result.alteration;
    for (const one of result.opened) if (!blown.includes(one.part)) blown.push(one.part);
  }
  return { model, faults, alteration, blown };
}

/** Whether no way is left through a part: blown, burnt through or not there. */
export function isOpen({ blown, faults }: Pick<FaultyCircuit, 'blown' | 'faults'>, part: string): boolean {
  return blown.includes(part) || faults.some((fault) => fault.part === part && OPEN_MODES.has(fault.mode));
}

/** The same circuit with one part renewed: its faults gone, what it has blown still blown. */
export function renewed(circuit: FaultyCircuit, part: string): FaultyCircuit {
  const left = circuit.faults.filter((fault) => fault.part !== part);
  const others = circuit.blown
    .filter((fuse) => fuse !== part)
    .map((fuse): Fault => ({ part: fuse, mode: 'open' }));
  return breakCircuit(circuit.model, [...left, ...others]);
}
