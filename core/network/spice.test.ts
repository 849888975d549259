import { readFileSync } from 'node:fs';
import path from 'node:path';
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { KIND_CIRCUITS, OTHER_VOLTAGES } from '../../testing/kindCircuits';
import { runNgspice } from '../../testing/ngspice';
import { randomCircuit, seeded } from '../../testing/randomCircuit';
import { so } from '../../testing/whole';
import { PART_KINDS } from '../circuit/expand';
import { conducts, resolveControl } from '../circuit/network';
import { faultsOfPart, withBlownFuses } from '../faults/enumerate';
import { faultAlteration, faultModes } from '../faults/faults';
import type { Condition } from '../format/circuitSchema';
import { type Alteration, combineAlterations, UNALTERED } from './alteration';
import { CircuitModel } from './model';
import type { OperatingPoint } from './point';
import { spiceNetlist } from './spice';

/** Allowed difference at a node, volts: 1 mV or 0.1 %, whichever is larger. */
const allowed = (volts: number) => Math.max(1e-3, Math.abs(volts) * 1e-3);

interface Case {
  readonly condition: Condition;
  readonly alteration: Alteration;
  readonly words: string;
}

interface Comparison {
  readonly compared: number;
  readonly buzzing: number;
  /** Several steady states; compared with the contacts held alike. */
  readonly history: number;
  readonly largest: number;
  readonly wrong: readonly string[];
}

/** Every contact held as a point has it, so that both programs look at the same of several states. */
function contactsHeld(
  model: CircuitModel,
  { condition, alteration }: Case,
  point: OperatingPoint,
): Alteration {
  const { network } = model;
  const closed = (branch: number) => {
    const resolved = resolveControl(network, network.branches[branch]!.control, condition);
    return typeof resolved === 'string' ? null : conducts(resolved, point.sensed);
  };
  const changes = network.branches.flatMap((_, branch) => {
    const state = closed(branch);
    return state === null ? [] : [{ branch, held: state ? ('closed' as const) : ('open' as const) }];
  });
  const bridges = alteration.bridges.map(({ follows, ...bridge }) =>
    follows !== undefined && closed(follows) === false
      ? { ...bridge, ohms: Number.POSITIVE_INFINITY }
      : bridge,
  );
  return combineAlterations({ changes, bridges: [] }, { ...alteration, bridges });
}

/** What a sensor feels at a point, volts or ampere, as altered. */
function felt(model: CircuitModel, { alteration }: Case, point: OperatingPoint, s: number): number {
  const sensor = model.network.sensors[s]!;
  if (sensor.senses === 'amps') return Math.abs(point.amps[sensor.branch]!);
  const moved = alteration.sensing?.find((one) => one.sensor === s);
  const blind = alteration.changes.some((one) => one.branch === sensor.branch && one.held === 'open');
  if (blind && !moved) return 0;
  const volts = point.volts[moved?.a ?? sensor.a]! - point.volts[moved?.b ?? sensor.b]!;
  return sensor.signed ? volts : Math.abs(volts);
}

/**
 * Whether everything that moves contacts stands where what it feels would keep it. Between two thresholds, and
 * where a relay holds itself, more than one such state exists, and the programs may come to rest in different ones.
 */
function keepsItself(model: CircuitModel, one: Case, point: OperatingPoint): boolean {
  return model.network.sensors.every((sensor, s) => {
    if (sensor.senses === 'latch') return true;
    const feels = felt(model, one, point, s);
    return point.sensed[s] === 1 ? feels >= sensor.offBelow : feels < sensor.onAbove;
  });
}

/** Largest difference at the nodes that are joined to the reference; infinite where it is not allowed. */
function differenceOf(
  model: CircuitModel,
  { condition, alteration }: Case,
  point: OperatingPoint,
  nodes: readonly string[],
  answer: ReadonlyMap<string, number>,
): number {
  let largest = 0;
  const hanging = model.solver(condition.id).hanging(alteration, point);
  point.volts.forEach((volts, node) => {
    // A floating node has no voltage of its own, and one that hangs on leakage has that of ngspice's own leaks.
    if (point.floating[node] || hanging[node] || node === model.network.datum) return;
    const difference = Math.abs(volts - (answer.get(nodes[node]!) ?? Number.NaN));
    largest = difference <= allowed(volts) ? Math.max(largest, difference) : Number.POSITIVE_INFINITY;
  });
  return largest;
}

/** Solves every case here and in ngspice, and compares every node that is joined to the reference. */
function compare(model: CircuitModel, cases: readonly Case[]): Comparison {
  const { network } = model;
  const points = cases.map(({ condition, alteration }) => model.solve(condition.id, alteration));
  const netlists = cases.map(({ condition, alteration }, index) =>
    spiceNetlist(network, condition, alteration, {
      start: model.start(condition.id, alteration),
      latches: points[index]!.sensed,
    }),
  );
  const answers = runNgspice(netlists.map((netlist) => netlist.text));
  const wrong: string[] = [];
  const again: number[] = [];
  let largest = 0;
  let compared = 0;
  let buzzing = 0;
  cases.forEach(({ condition, words }, index) => {
    const point = points[index]!;
    const answer = answers[index];
    const difference = answer
      ? differenceOf(model, cases[index]!, point, netlists[index]!.nodes, answer)
      : Number.POSITIVE_INFINITY;
    // A relay that buzzes has no operating point: ngspice must find none either, and says so by giving none.
    if (point.oscillating.length > 0) {
      if (answer === null) buzzing += 1;
      else wrong.push(`${words} (${condition.name}): buzzes here only`);
    } else if (Number.isFinite(difference)) {
      compared += 1;
      largest = Math.max(largest, difference);
    } else if (network.sensors.length > 0 && keepsItself(model, cases[index]!, point)) again.push(index);
    else wrong.push(`${words} (${condition.name}): differs`);
  });
  const held = again.map((index) =>
    spiceNetlist(network, cases[index]!.condition, contactsHeld(model, cases[index]!, points[index]!)),
  );
  const heldAnswers = held.length > 0 ? runNgspice(held.map((netlist) => netlist.text)) : [];
  again.forEach((index, at) => {
    const answer = heldAnswers[at];
    const difference = answer
      ? differenceOf(model, cases[index]!, points[index]!, held[at]!.nodes, answer)
      : Number.POSITIVE_INFINITY;
    if (Number.isFinite(difference)) largest = Math.max(largest, difference);
    else
      wrong.push(
        `${cases[index]!.words} (${cases[index]!.condition.name}): differs with the same contacts held`,
      );
  });
  return { compared, buzzing, history: again.length, largest, wrong };
}

function report(name: string, { compared, buzzing, history, largest }: Comparison): void {
  process.stdout.write(
    `${name}: ${compared} operating points, ${buzzing} without a steady state on either side, ${history} of several states compared with contacts held, largest difference ${largest.toExponential(1)} V\n`,
  );
}

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
