/** Small circuits for tests, stated in a few words. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { checkCircuit, checkCircuitText } from '../core/circuit';
import type { CircuitFile, CircuitPart, Condition } from '../core/format';

type Draft = { parts: CircuitPart[]; conditions?: Condition[]; functions?: CircuitFile['functions'] };

export const ON: Condition = { id: 'on', name: 'On', key: 'run' };

/** A 12 V circuit with every node reachable at one open place; the reference is `minus`. */
export function circuitOf({ parts, conditions = [ON], functions = [] }: Draft): CircuitFile {
  const ids = [...new Set(parts.flatMap((part) => Object.values(part.pins) as string[]))];
  const file: CircuitFile = {
    format: 'every-trace/circuit',
    version: 1,
    id: 'test',
    name: 'Test circuit',
    nominalVolts: 12,
    reference: 'minus',
    places: [{ id: 'bench', name: 'Bench', minutesToOpen: 0 }],
    nodes: ids.map((id) => ({ id, name: id, access: [{ place: 'bench', lead: id }] })),
    parts,
    conditions,
    functions,
  };
  const checked = checkCircuit(file);
  if (!checked.ok) throw new Error(checked.problems.map((one) => `${one.path} ${one.message}`).join('\n'));
  return checked.value;
}

/** A battery of 12.6 V and 0.1 ohm between `plus` and `minus`. */
export const BATTERY: CircuitPart = {
  id: 'B',
  kind: 'battery',
  name: 'Battery',
  pins: { plus: 'plus', minus: 'minus' },
  emfVolts: 12.6,
  innerOhms: 0.1,
};

export function wire(id: string, a: string, b: string, ohms: number): CircuitPart {
  return { id, kind: 'wire', name: `Wire ${id}`, pins: { a, b }, ohms };
}

export function lamp(id: string, plus: string, minus: string, ohms: number): CircuitPart {
  return { id, kind: 'lamp', name: `Lamp ${id}`, pins: { plus, minus }, ohms };
}

export function fuse(id: string, from: string, to: string, ratingAmps: number, ohms = 0.01): CircuitPart {
  return { id, kind: 'fuse', name: `Fuse ${id}`, pins: { in: from, out: to }, ratingAmps, ohms };
}

const DEMO = path.resolve('demo');
export const DEMO_CIRCUITS = [
  'van-proving-cabinet',
  'van-hatch-fridge',
  'van-demist',
  'trailer-lamps',
] as const;

export function demoText(name: string): string {
  return readFileSync(path.join(DEMO, name), 'utf8');
}

export function demoCircuit(name: (typeof DEMO_CIRCUITS)[number]): CircuitFile {
  const checked = checkCircuitText(demoText(`${name}.circuit.json`));
  if (!checked.ok) throw new Error(`${name} has problems.`);
  return checked.value;
}
