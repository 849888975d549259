import fc from 'fast-check';
import { BATTERY, circuitOf, DEMO_CIRCUITS, demoCircuit, fuse, lamp, ON, wire } from '../../testing/circuits';
import { randomCircuit, seeded } from '../../testing/randomCircuit';
import { so } from '../../testing/whole';
import { buildNetwork } from '../circuit/buildNetwork';
import { faultsOfPart } from '../faults/enumerate';
import { faultAlteration } from '../faults/faults';
import type { CircuitPart } from '../format/circuitSchema';
import { type Intervention, intervene } from '../hands/interventions';
import { type Alteration, combineAlterations, UNALTERED } from './alteration';
import { CircuitModel } from './model';
import type { OperatingPoint } from './point';
import { ConditionSolver } from './solve';

function solved(parts: CircuitPart[], fault?: Parameters<typeof faultAlteration>[1]) {
  const network = buildNetwork(circuitOf({ parts }));
  const solver = new ConditionSolver(network, ON);
  const point = solver.solve(fault ? faultAlteration(network, fault) : UNALTERED);
  const volts = (node: string) => point.volts[network.nodeIndex.get(node)!]!;
  const floating = (node: string) => point.floating[network.nodeIndex.get(node)!] === 1;
  return { network, point, volts, floating };
}

describe('values worked out by hand', () => {
  test('one lamp behind a fuse', () => {
    // I = 12.6 V / (0.1 + 0.01 + 5.89) ohm = 12.6 / 6 = 2.1 A; battery terminal 12.6 - 2.1*0.1 = 12.39 V;
    // behind the fuse 12.39 - 2.1*0.01 = 12.369 V.
    const { volts } = solved([BATTERY, fuse('F', 'plus', 'a', 5), lamp('L', 'a', 'minus', 5.89)]);
    expect(volts('plus')).toBeCloseTo(12.39, 9);
    expect(volts('a')).toBeCloseTo(12.369, 9);
  });

  test('a blown fuse shows supply on one side and nothing on the other', () => {
    // No current: the whole 12.6 V stand before the fuse; behind it the lamp pulls the point to 0 V.
    const parts = [BATTERY, fuse('F', 'plus', 'a', 5), lamp('L', 'a', 'minus', 5.89)];
    const { volts, floating } = solved(parts, { part: 'F', mode: 'open' });
    expect(volts('plus')).toBeCloseTo(12.6, 9);
    expect(volts('a')).toBeCloseTo(0, 9);
    expect(floating('a')).toBe(false);
  });

  test('two lamps in parallel behind one wire', () => {
    // 6 || 3 = 2 ohm; total 0.1 + 0.4 + 2 = 2.5 ohm; I = 12.6/2.5 = 5.04 A; at the lamps 5.04*2 = 10.08 V.
    const { volts } = solved([
      BATTERY,
      wire('W', 'plus', 'a', 0.4),
      lamp('L1', 'a', 'minus', 6),
      lamp('L2', 'a', 'minus', 3),
    ]);
    expect(volts('a')).toBeCloseTo(10.08, 9);
  });

  test('a high-resistance earth lifts the return of the load', () => {
    // 1.2 ohm in the earth wire: total 0.1 + 4.9 + 0.1 + 1.2 = 6.3 ohm; I = 12.6/6.3 = 2 A;
    // the return stands at 2*(0.1+1.2) = 2.6 V instead of 12.6/5.1*0.1 = 0.247 V.
    const parts = [BATTERY, lamp('L', 'plus', 'r', 4.9), wire('E', 'r', 'minus', 0.1)];
    expect(solved(parts).volts('r')).toBeCloseTo((12.6 / 5.1) * 0.1, 9);
    const lifted = solved(parts, { part: 'E', mode: 'high-resistance', ohms: 1.2 });
    expect(lifted.volts('r')).toBeCloseTo(2.6, 9);
  });

  const relay: CircuitPart = {
    id: 'R',
    kind: 'relay',
    name: 'Relay',
    pins: { '30': 'plus', '87': 'out', '86': 'plus', '85': 'minus' },
    coilOhms: 90,
    contactOhms: 0.1,
  };

  test('a relay feeds its load', () => {
    // Load branch 0.1 + 6.2 = 6.3 ohm beside the coil of 90: G = 1/6.3 + 1/90; V = 12.6/(1 + 0.1*G);
    // at the output V * 6.2/6.3.
    const { volts, point } = solved([BATTERY, relay, lamp('L', 'out', 'minus', 6.2)]);
    const terminal = 12.6 / (1 + 0.1 * (1 / 6.3 + 1 / 90));
    expect(point.sensed[0]).toBe(1);
    expect(volts('out')).toBeCloseTo((terminal * 6.2) / 6.3, 9);
  });

  test('a dead coil leaves the contact open', () => {
    const { volts, point } = solved([BATTERY, relay, lamp('L', 'out', 'minus', 6.2)], {
      part: 'R',
      mode: 'coil-open',
    });
    expect(point.sensed[0]).toBe(0);
    expect(volts('out')).toBeCloseTo(0, 9);
    // Nothing draws current any more: 12.6 V at the terminal.
    expect(volts('plus')).toBeCloseTo(12.6, 9);
  });

  test('a changeover relay at rest feeds 87a, pulled in 87', () => {
    const parts = (coilFeed: string): CircuitPart[] => [
      BATTERY,
      {
        ...relay,
        pins: { '30': 'plus', '87': 'out', '87a': 'rest', '86': coilFeed, '85': 'minus' },
      } as CircuitPart,
      lamp('L1', 'out', 'minus', 10),
      lamp('L2', 'rest', 'minus', 10),
    ];
    // Coil between minus and minus: at rest. 12.6 * 10/(0.1+0.1+10) at the rest contact.
    const rest = solved(parts('minus'));
    expect(rest.volts('rest')).toBeCloseTo((12.6 * 10) / 10.2, 9);
    expect(rest.volts('out')).toBeCloseTo(0, 9);
    const pulled = solved(parts('plus'));
    expect(pulled.volts('rest')).toBeCloseTo(0, 9);
    expect(pulled.volts('out')).toBeGreaterThan(12);
  });

  test('a diode drops its forward voltage one way and blocks the other', () => {
    const diode = (anode: string, cathode: string): CircuitPart => ({
      id: 'D',
      kind: 'diode',
      name: 'Diode',
      pins: { anode, cathode },
      saturationAmps: 1e-9,
      emission: 1,
      seriesOhms: 1e-5,
    });
    const forward = solved([BATTERY, diode('plus', 'a'), lamp('L', 'a', 'minus', 10)]);
    const amps = forward.volts('a') / 10;
    // Shockley: V = n Vt ln(I/Is + 1), here with Vt = 25.865 mV.
    expect(forward.volts('plus') - forward.volts('a')).toBeCloseTo(0.0258649 * Math.log(amps / 1e-9 + 1), 4);
    const blocked = solved([BATTERY, diode('a', 'plus'), lamp('L', 'a', 'minus', 10)]);
    expect(Math.abs(blocked.volts('a'))).toBeLessThan(1e-6);
  });

  test('a load cut off on both sides floats', () => {
    const network = buildNetwork(
      circuitOf({
        parts: [BATTERY, wire('W', 'plus', 'a', 0.1), lamp('L', 'a', 'b', 6), wire('E', 'b', 'minus', 0.1)],
      }),
    );
    const solver = new ConditionSolver(network, ON);
    const open = (part: string) => faultAlteration(network, { part, mode: 'open' }).changes;
    const point = solver.solve({ changes: [...open('W'), ...open('E')], bridges: [] });
    expect(point.floating[network.nodeIndex.get('a')!]).toBe(1);
    expect(point.floating[network.nodeIndex.get('b')!]).toBe(1);
    expect(point.floating[network.nodeIndex.get('plus')!]).toBe(0);
  });

  test('a relay that cuts its own coil is reported as oscillating, and the solver returns', () => {
    const buzzer: CircuitPart = {
      ...relay,
      pins: { '30': 'plus', '87a': 'feed', '86': 'feed', '85': 'minus' },
    } as CircuitPart;
    expect(solved([BATTERY, buzzer]).point.oscillating).toEqual(['R']);
  });
});

/** Random ladders: wires in series with lamps to minus, all values positive. */
const ladder = fc.array(
  fc.record({
    series: fc.double({ min: 0.001, max: 2, noNaN: true }),
    load: fc.double({ min: 0.5, max: 200, noNaN: true }),
  }),
  { minLength: 1, maxLength: 12 },
);

function ladderParts(
  steps: { series: number; load: number }[],
  name = (n: number) => `n${n}`,
): CircuitPart[] {
  return [
    BATTERY,
    ...steps.flatMap((step, index) => [
      wire(`W${index}`, index === 0 ? 'plus' : name(index - 1), name(index), step.series),
      lamp(`L${index}`, name(index), 'minus', step.load),
    ]),
  ];
}

describe('laws that hold for every circuit', () => {
  test('power delivered equals power consumed', () => {
    fc.assert(
      fc.property(ladder, (steps) => {
        const { network, point } = solved(ladderParts(steps));
        let delivered = 0;
        let consumed = 0;
        network.branches.forEach((branch, index) => {
          const amps = point.amps[index]!;
          delivered += -branch.emfVolts * amps;
          consumed += amps * amps * branch.ohms;
        });
        expect(consumed).toBeCloseTo(delivered, 6);
      }),
    );
  });

  test('removing a load never lowers a feed', () => {
    fc.assert(
      fc.property(ladder, fc.nat(), (steps, pick) => {
        const parts = ladderParts(steps);
        const before = solved(parts);
        const after = solved(parts, { part: `L${pick % steps.length}`, mode: 'open' });
        steps.forEach((_, index) => {
          expect(after.volts(`n${index}`)).toBeGreaterThanOrEqual(before.volts(`n${index}`) - 1e-9);
        });
      }),
    );
  });

  test('renaming nodes and reordering parts changes nothing', () => {
    fc.assert(
      fc.property(ladder, (steps) => {
        const before = solved(ladderParts(steps));
        const after = solved(ladderParts(steps, (n) => `other-${99 - n}`).reverse());
        steps.forEach((_, index) => {
          expect(after.volts(`other-${99 - index}`)).toBeCloseTo(before.volts(`n${index}`), 9);
        });
      }),
    );
  });
});

/** Every fault of a circuit as an alteration, contacts and shorts included. */
function everyFault(model: CircuitModel): { words: string; alteration: Alteration }[] {
  return model.circuit.parts.flatMap((part) =>
    faultsOfPart(model, part).map((fault) => ({
      words: `${part.id} ${fault.mode}`,
      alteration: faultAlteration(model.network, fault),
    })),
  );
}

/** Interventions at points and parts picked by a seed. */
function someInterventions(model: CircuitModel, random: () => number): Intervention[] {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const node = () => pick(model.circuit.nodes).id;
  const fuses = model.circuit.parts.filter((part) => part.kind === 'fuse').map((part) => part.id);
  return [
    { kind: 'pulled', part: pick(model.circuit.parts).id },
    { kind: 'jumper', from: node(), to: node(), fuseAmps: 10 },
    { kind: 'earth', node: node() },
    { kind: 'feed', node: node(), fuseAmps: 15 },
    { kind: 'lamp', at: node(), against: model.circuit.reference },
    { kind: 'meter', at: node(), against: node() },
    ...(fuses.length > 0 ? [{ kind: 'lamp-in-place', part: pick(fuses) } as const] : []),
  ];
}

/** Compares what a look is asked with the whole point; volts and currents one by one. */
function expectSameLook(
  model: CircuitModel,
  condition: string,
  alteration: Alteration,
  point: OperatingPoint,
  hanging: Uint8Array,
  words: string,
): void {
  const { network } = model;
  const solver = model.solver(condition);
  const looked = solver.look(alteration);
  const steady = point.oscillating.join(' ') === looked.oscillating.join(' ');
  if (!steady || looked.sensed.join() !== point.sensed.join()) throw new Error(`${words}: other contacts`);
  const close = (one: number, other: number) => Math.abs(one - other) <= 1e-9 * Math.max(1, Math.abs(other));
  point.volts.forEach((volts, node) => {
    if (solver.floats(node) !== (point.floating[node] === 1)) throw new Error(`${words}: other islands`);
    if (point.floating[node] === 1 || hanging[node] === 1) return;
    const seen = solver.across(node, network.datum);
    if (!close(seen, volts)) throw new Error(`${words}, ${network.nodeIds[node]}: ${seen} V, not ${volts} V`);
  });
  network.branches.forEach(({ part, a, b }, branch) => {
    if (hanging[a] === 1 || hanging[b] === 1) return;
    const seen = solver.branchAmps(branch);
    const amps = point.amps[branch]!;
    // Volts to 1e-9 over a milliohm leave currents to a microampere.
    if (Math.abs(seen - amps) > 1e-6 * Math.max(1, Math.abs(amps))) {
      throw new Error(`${words}, ${part}: ${seen} A, not ${amps} A`);
    }
  });
}

/** Compares the quick way with factoring anew; nodes that hang on leakage alone aside. */
function expectSame(model: CircuitModel, condition: string, alteration: Alteration, words: string): void {
  const solver = model.solver(condition);
  const quick = solver.solve(alteration);
  const anew = solver.solveAnew(alteration);
  expect({ words, floating: [...quick.floating] }).toEqual({ words, floating: [...anew.floating] });
  expect({ words, sensed: [...quick.sensed], oscillating: quick.oscillating }).toEqual({
    words,
    sensed: [...anew.sensed],
    oscillating: anew.oscillating,
  });
  const hanging = solver.hanging(alteration, anew);
  expectSameLook(model, condition, alteration, quick, hanging, words);
  quick.volts.forEach((volts, node) => {
    if (hanging[node] === 1) return;
    const allowed = 1e-9 * Math.max(1, Math.abs(anew.volts[node]!));
    const difference = Math.abs(volts - anew.volts[node]!);
    if (!(difference <= allowed)) {
      throw new Error(`${words}, ${model.network.nodeIds[node]}: ${volts} V, anew ${anew.volts[node]} V`);
    }
  });
}

describe('low-rank updates give what factoring anew gives, to 1e-9', () => {
  test.each(DEMO_CIRCUITS)('every fault of %s in every condition', (name) => {
    const model = new CircuitModel(demoCircuit(name));
    const faults = everyFault(model);
    for (const { words, alteration } of faults) {
      for (const condition of model.conditions) expectSame(model, condition.id, alteration, words);
    }
    expect(faults.length).toBeGreaterThan(40);
  });

  const networks = so(60, 20);
  test(`every fault, and faults with interventions, of ${networks} random networks of every part kind`, () => {
    let compared = 0;
    for (let seed = 1; seed <= networks; seed++) {
      const random = seeded(seed * 104729);
      const model = new CircuitModel(randomCircuit(seed * 31, 5 + Math.floor(random() * 60)));
      const faults = everyFault(model);
      const condition = model.conditions[seed % 3]!.id;
      for (const { words, alteration } of faults) {
        expectSame(model, condition, alteration, `seed ${seed} ${words}`);
        compared += 1;
      }
      for (const one of someInterventions(model, random)) {
        const fault = faults[Math.floor(random() * faults.length)]!;
        const alteration = combineAlterations(fault.alteration, intervene(model.network, [], [one]));
        expectSame(model, condition, alteration, `seed ${seed} ${fault.words} with ${one.kind}`);
        compared += 1;
      }
    }
    process.stdout.write(`low-rank against factoring anew: ${compared} states of random networks\n`);
    expect(compared).toBeGreaterThan(50 * networks);
  }, 240_000);
});
