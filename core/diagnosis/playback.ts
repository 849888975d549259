/**
 * A simulated technician: takes the readings that a faulty circuit would give. Used to practise and to
 * measure the engine; the readings come from the model, rounded as a meter rounds them.
 */
import type { FaultyCircuit } from '../faults';
import type { ReadingValue, TestRef } from '../format';
import type { FUNCTION_STATES } from '../limits';
import { seenPoint } from '../network';
import { kindOf } from './kinds';

/** What the instrument of a test shows on the faulty circuit. */
export function readingOf(circuit: FaultyCircuit, ref: TestRef): ReadingValue {
  return kindOf(ref).shows(circuit, ref);
}

/** The first function and condition in which the fault shows, or null when it shows nowhere. */
export function complaintOf(
  circuit: FaultyCircuit,
): { function: string; condition: string; state: (typeof FUNCTION_STATES)[number] } | null {
  const { model } = circuit;
  for (const condition of model.conditions) {
    for (const one of model.circuit.functions) {
      const is = model.outcome(one, seenPoint(model, condition.id, circuit.alteration));
      const should = model.outcome(one, model.sound(condition.id));
      // Nobody complains of what works better than it was made to.
      if (is !== should && !(is === 'works' && should === 'weak'))
        return { function: one.id, condition: condition.id, state: is };
    }
  }
  return null;
}
