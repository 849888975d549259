/** Conditions that a job adds to the circuit it is traced on. */
import type { CircuitFile, Condition } from '../format';

/** A circuit with conditions more; those that it has already, or that name a part that it has not, are left. */
export function withConditions(circuit: CircuitFile, more: readonly Condition[]): CircuitFile {
  const parts = new Set(circuit.parts.map(({ id }) => id));
  const known = new Set(circuit.conditions.map(({ id }) => id));
  const added = more.filter(
    ({ id, switches, pluggedIn }) =>
      !known.has(id) && Object.keys({ ...switches, ...pluggedIn }).every((part) => parts.has(part)),
  );
  return added.length > 0 ? { ...circuit, conditions: [...circuit.conditions, ...added] } : circuit;
}
