/** Every setting of key, engine, switches and plugs that either circuit knows, solved in both. */
import type { CircuitFile } from '../format';
import { combinations, conditionOf, type Dial, dialsOf } from '../live';
import { type CircuitModel, type OperatingPoint, UNALTERED } from '../network';

/** Settings beyond which none are looked at; who asks is told. */
export const MOST_SETTINGS = 1024;

export interface Setting {
  readonly at: Readonly<Record<string, string>>;
  readonly before: OperatingPoint;
  readonly after: OperatingPoint;
}

/** Dials of both circuits: one that only the later has stands at rest in the earlier. */
export function dialsOfBoth(before: CircuitFile, after: CircuitFile): Dial[] {
  const known = new Map(dialsOf(before).map((dial) => [dial.id, dial]));
  for (const dial of dialsOf(after)) {
    const old = known.get(dial.id);
    const positions = old ? [...new Set([...old.positions, ...dial.positions])] : dial.positions;
    known.set(dial.id, { ...dial, positions });
  }
  return [...known.values()];
}

function pointAt(
  model: CircuitModel,
  dials: readonly Dial[],
  at: Readonly<Record<string, string>>,
): OperatingPoint {
  const own = new Set(model.circuit.parts.map(({ id }) => id));
  const here = dials.filter(({ id }) => id === 'key' || id === 'engine' || own.has(id));
  return model.solve(model.adopt(conditionOf(here, at)), UNALTERED);
}

/** Every combination solved before and after; null where there are more than are looked at. */
export function settingsOf(before: CircuitModel, after: CircuitModel): readonly Setting[] | null {
  const dials = dialsOfBoth(before.circuit, after.circuit);
  const rows = dials.reduce((product, { positions }) => product * positions.length, 1);
  if (rows > MOST_SETTINGS) return null;
  return combinations(dials).map((at) => ({
    at,
    before: pointAt(before, dials, at),
    after: pointAt(after, dials, at),
  }));
}

/** A setting in words: what does not stand at rest. */
export function settingWords(circuit: CircuitFile, at: Readonly<Record<string, string>>): string {
  const words = Object.entries(at).flatMap(([id, position]) => {
    if (id === 'key') return [`key ${position}`];
    if (id === 'engine') return position === 'running' ? ['engine running'] : [];
    const part = circuit.parts.find((one) => one.id === id);
    if (part?.kind === 'switch') return position === part.rest ? [] : [`${part.name} ${position}`];
    return position === 'nothing' || !part ? [] : [`${position} in ${part.name}`];
  });
  return words.length === 0 ? 'with nothing switched' : `with ${words.join(', ')}`;
}
