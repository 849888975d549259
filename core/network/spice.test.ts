import { readFileSync } from 'node:fs';
import path from 'node:path';
import { allowed, type Case, compare, report } from '../../testing/againstSpice';
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { KIND_CIRCUITS, OTHER_VOLTAGES } from '../../testing/kindCircuits';
import { runNgspice } from '../../testing/ngspice';
import { randomCircuit, seeded } from '../../testing/randomCircuit';
import { so } from '../../testing/whole';
import { PART_KINDS } from '../circuit/expand';
import { faultsOfPart, withBlownFuses } from '../faults/enumerate';
import { faultAlteration, faultModes } from '../faults/faults';
import { UNALTERED } from './alteration';
import { CircuitModel } from './model';

/** Sound, every fault by itself, and every fault with the fuses that it opens, in every condition. */
function everyCase(model: CircuitModel): Case[] {
  const altered = model.circuit.parts.flatMap((part) =>
    faultsOfPart(model, part).flatMap((fault) => {
      const words = `${part.id} ${fault.mode}`;
      const blown = withBlownFuses(model, fault);
      return [
        { words, alteration: faultAlteration(model.network, fault) },
        ...(blown ? [{ words: `${words} with its fuse`, alteration: blown.alteration }] : []),
      ];
    }),
  );
  return [{ words: 'sound', alteration: UNALTERED }, ...altered].flatMap((one) =>
    model.conditions.map((condition) => ({ ...one, condition })),
  );
}

const NETLISTS = path.resolve('testing/netlists');
/** Condition of each hand-written netlist's circuit that it was written for. */
const BY_HAND: readonly (readonly [string, string])[] = [
  ['lamp', 'run'],
  ['shared-earth', 'S'],
  ['relay', 'S'],
  ['changeover', 'off'],
  ['suppressed-by-diode', 'S'],
  ['steering-diodes', 'S-T'],
  ['led', 'run'],
  ['alternator', 'engine'],
  ['stepped-motor', 'lo'],
  ['socket', 'pumping'],
  ['solenoid', 'S'],
  ['module-high-side', 'D'],
];

describe('agreement with netlists written by hand', () => {
  const texts = BY_HAND.map(([name]) => readFileSync(path.join(NETLISTS, `${name}.cir`), 'utf8'));
  const answers = runNgspice(texts);

  test.each(BY_HAND.map(([name, condition], index) => ({ name, condition, index })))(
    '$name, $condition',
    ({ name, condition, index }) => {
      const model = new CircuitModel(KIND_CIRCUITS.get(name)!);
      const point = model.sound(condition);
      const answer = answers[index];
      let compared = 0;
      for (const node of model.circuit.nodes) {
        const volts = answer?.get(node.id.toLowerCase());
        if (volts === undefined) continue;
        const ours = point.volts[model.network.nodeIndex.get(node.id)!]!;
        expect({ node: node.id, far: Math.abs(ours - volts) > allowed(volts) }).toEqual({
          node: node.id,
          far: false,
        });
        compared += 1;
      }
      expect(compared).toBeGreaterThanOrEqual(3);
    },
  );
});

describe('agreement with ngspice', () => {
  const every = so(1, 3);
  test(`circuits of every part kind: every condition, sound and with one in ${every} of its faults`, () => {
    const total = { compared: 0, buzzing: 0, history: 0, largest: 0 };
    const wrong: string[] = [];
    const kinds = new Set<string>();
    const circuits = [...KIND_CIRCUITS, ...OTHER_VOLTAGES];
    for (const [name, circuit] of circuits) {
      for (const part of circuit.parts) kinds.add(part.kind);
      const model = new CircuitModel(circuit);
      // Conditions run fastest: whole runs of them are left out.
      const run = (index: number) => Math.floor(index / model.conditions.length);
      const cases = everyCase(model).filter((_, index) => run(index) % every === 0);
      const result = compare(model, cases);
      total.compared += result.compared;
      total.buzzing += result.buzzing;
      total.history += result.history;
      total.largest = Math.max(total.largest, result.largest);
      wrong.push(...result.wrong.map((words) => `${name}: ${words}`));
    }
    report(`${circuits.length} circuits of ${kinds.size} part kinds`, { ...total, wrong });
    expect(wrong.slice(0, 10)).toEqual([]);
    expect(KIND_CIRCUITS.size).toBeGreaterThanOrEqual(30);
    expect(kinds).toEqual(new Set(PART_KINDS));
    expect(total.compared).toBeGreaterThan(2000 / every);
  }, 240_000);

  test.each(DEMO_CIRCUITS)('%s, every condition, sound and with every fault', (name) => {
    const model = new CircuitModel(demoCircuit(name));
    const cases = everyCase(model);
    const result = compare(model, cases);
    report(name, result);
    expect(result.wrong.slice(0, 10)).toEqual([]);
    expect(result.compared + result.buzzing + result.history).toBe(cases.length);
    expect(result.compared).toBeGreaterThan(80);
  });

  const networks = so(300, 30);
  test(`${networks} random networks of 5 to 80 parts, sound and with a random fault`, () => {
    const total = { compared: 0, buzzing: 0, history: 0, largest: 0 };
    const wrong: string[] = [];
    for (let seed = 1; seed <= networks; seed++) {
      const random = seeded(seed * 7919);
      const model = new CircuitModel(randomCircuit(seed, 5 + Math.floor(random() * 76)));
      const cases: Case[] = model.conditions.flatMap((condition) => {
        const part = model.circuit.parts[Math.floor(random() * model.circuit.parts.length)]!;
        const modes = faultModes(part);
        const mode = modes[Math.floor(random() * modes.length)]!;
        const fault = {
          part: part.id,
          mode,
          ...(mode.includes('resistance') ? { ohms: 0.1 + random() * 20 } : {}),
        };
        return [
          { condition, alteration: UNALTERED, words: `seed ${seed} sound` },
          {
            condition,
            alteration: faultAlteration(model.network, fault),
            words: `seed ${seed} ${part.id} ${mode}`,
          },
        ];
      });
      const result = compare(model, cases);
      total.compared += result.compared;
      total.buzzing += result.buzzing;
      total.history += result.history;
      total.largest = Math.max(total.largest, result.largest);
      wrong.push(...result.wrong);
    }
    report(`${networks} random networks`, { ...total, wrong });
    expect(wrong.slice(0, 10)).toEqual([]);
    expect(total.compared).toBeGreaterThan(5.5 * networks);
  }, 240_000);
});
