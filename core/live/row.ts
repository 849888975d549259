/** A row of the table of combinations as a condition: the one that the circuit has, or one of its own. */
import type { CircuitFile, Condition } from '../format';
import { conditionOf, type Dial, dialsOf, keyPattern } from './table';

/** What stands where, as positions by dial. */
export type DialPositions = Readonly<Record<string, string>>;

/** Positions of all dials in a condition. */
export function positionsIn(circuit: CircuitFile, condition: Condition): DialPositions {
  return Object.fromEntries(dialsOf(circuit).map((dial) => [dial.id, positionOf(circuit, dial, condition)]));
}

function positionOf(circuit: CircuitFile, dial: Dial, condition: Condition): string {
  const [first = ''] = dial.positions;
  if (dial.id === 'engine') return condition.engineRunning ? 'running' : 'stopped';
  if (dial.id !== 'key') {
    return (first === 'nothing' ? condition.pluggedIn : condition.switches)?.[dial.id] ?? first;
  }
  // Of positions that no contact tells apart one stands for all.
  const same = keyPattern(circuit, condition.key);
  return dial.positions.find((position) => keyPattern(circuit, position) === same) ?? first;
}

/** The condition of a circuit in which its dials stand so, nothing else being said of it; null where it has none. */
export function conditionAt(circuit: CircuitFile, at: DialPositions): Condition | null {
  const dials = dialsOf(circuit);
  const wanted = (dial: Dial) => at[dial.id] ?? dial.positions[0];
  return (
    circuit.conditions.find(
      (one) =>
        (one.phase ?? 'on') === 'on' &&
        one.secondsIn === undefined &&
        one.after === undefined &&
        dials.every((dial) => positionOf(circuit, dial, one) === wanted(dial)),
    ) ?? null
  );
}

/** A row as a condition of its own, named by what does not stand at rest. */
export function conditionOfRow(circuit: CircuitFile, at: DialPositions, id: string): Condition {
  const dials = dialsOf(circuit);
  const turned = dials.flatMap((dial) => {
    const position = at[dial.id] ?? dial.positions[0]!;
    return position === dial.positions[0] ? [] : [`${dial.name}: ${positionName(circuit, dial, position)}`];
  });
  const name = turned.length > 0 ? turned.join(', ') : 'Nothing switched';
  return { ...conditionOf(dials, at), id, name: name.slice(0, 80) };
}

/** A position as it is called: an appliance by its name. */
export function positionName(circuit: CircuitFile, dial: Dial, position: string): string {
  const socket = circuit.parts.find(({ id }) => id === dial.id);
  const appliances = socket?.kind === 'socket' ? socket.appliances : [];
  return appliances.find(({ id }) => id === position)?.name ?? position;
}
