/**
 * A simulated technician: takes the readings that a faulty circuit would give. Used to practise and to
 * measure the engine; the readings come from the model, rounded as a meter rounds them.
 */
import type { CircuitModel } from '../circuit/model';
import { type Fault, faultAlteration, OPEN_MODES } from '../faults/faults';
import { openOverloaded } from '../faults/overload';
import type { ReadingValue, TestRef } from '../format/readingsSchema';
import { bridgeRelay, lampInPlaceOf, testLampAt } from '../instruments/attach';
import { type FUNCTION_STATES, LAMP_STATES, lampChances } from '../instruments/instruments';
import { type Alteration, combineAlterations } from '../network/alteration';
import { clampedAmps } from './predictions';

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
function isOpen({ blown, faults }: FaultyCircuit, part: string): boolean {
  return blown.includes(part) || faults.some((fault) => fault.part === part && OPEN_MODES.has(fault.mode));
}

/** What the instrument of a test shows on the faulty circuit. */
export function readingOf(circuit: FaultyCircuit, ref: TestRef): ReadingValue {
  const { model, alteration } = circuit;
  const { network } = model;
  const emf = model.emfVolts;
  const mostLikely = <T>(states: readonly T[], chances: readonly number[]): T =>
    states[chances.indexOf(Math.max(...chances))]!;
  const functionState = (functionId: string, conditionId: string, altered: Alteration): ReadingValue => {
    const point = model.solve(conditionId, altered);
    return { state: model.outcome(model.function(functionId), point) };
  };
  switch (ref.kind) {
    case 'volts': {
      const point = model.solve(ref.condition, alteration);
      const node = network.nodeIndex.get(ref.node)!;
      const against = network.nodeIndex.get(ref.against)!;
      const floats = point.floating[node] !== point.floating[against];
      const volts = floats ? 0 : point.volts[node]! - point.volts[against]!;
      return { volts: Math.round(volts * 100) / 100 };
    }
    case 'lamp': {
      const node = network.nodeIndex.get(ref.node)!;
      const point = model.solve(ref.condition, combineAlterations(alteration, testLampAt(network, node)));
      const volts = point.floating[node] ? 0 : Math.abs(point.volts[node]!);
      return { lamp: mostLikely(LAMP_STATES, lampChances(volts / emf)) };
    }
    case 'function':
      return functionState(ref.function, ref.condition, alteration);
    case 'continuity': {
      if (isOpen(circuit, ref.part)) return { overLimit: true };
      const branch = (network.branchesOfPart.get(ref.part) ?? [])
        .map((index) => network.branches[index]!)
        .find((one) => one.role !== 'contact');
      return { ohms: Math.round(((branch?.ohms ?? 0) + 0.3) * 10) / 10 };
    }
    case 'click': {
      const sensor = network.sensors.findIndex((one) => one.part === ref.part);
      const pulledIn = model.solve(ref.condition, alteration).sensed[sensor] === 1;
      return { click: pulledIn ? 'clicks' : 'silent' };
    }
    case 'look':
      return { look: isOpen(circuit, ref.part) ? 'broken' : 'whole' };
    case 'clamp': {
      const amps = clampedAmps(model, ref.part, model.solve(ref.condition, alteration));
      return { amps: Math.round(amps * 10) / 10 };
    }
    case 'bridge':
      return functionState(
        ref.function,
        ref.condition,
        combineAlterations(alteration, bridgeRelay(network, ref.part)),
      );
    case 'lamp-in-fuse': {
      const lamp = lampInPlaceOf(network, ref.part, ref.unplugged);
      const point = model.solve(ref.condition, combineAlterations(alteration, lamp.alteration));
      const across = Math.abs(point.volts[lamp.a]! - point.volts[lamp.b]!);
      return { lamp: mostLikely(LAMP_STATES, lampChances(across / emf)) };
    }
    case 'substitute': {
      const left = circuit.faults.filter((fault) => fault.part !== ref.part);
      const others = circuit.blown
        .filter((fuse) => fuse !== ref.part)
        .map((part): Fault => ({ part, mode: 'open' }));
      const mended = breakCircuit(model, [...left, ...others]);
      return functionState(ref.function, ref.condition, mended.alteration);
    }
  }
}

/** The first function and condition in which the fault shows, or null when it shows nowhere. */
export function complaintOf(
  circuit: FaultyCircuit,
): { function: string; condition: string; state: (typeof FUNCTION_STATES)[number] } | null {
  const { model } = circuit;
  for (const condition of model.conditions) {
    for (const one of model.circuit.functions) {
      const is = model.outcome(one, model.solve(condition.id, circuit.alteration));
      const should = model.outcome(one, model.sound(condition.id));
      if (is !== should) return { function: one.id, condition: condition.id, state: is };
    }
  }
  return null;
}
