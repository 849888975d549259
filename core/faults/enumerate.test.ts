import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { KIND_CIRCUITS } from '../../testing/kindCircuits';
import type { OperatingPoint } from '../network';
import { CircuitModel } from '../network/model';
import { faultId, faultsOfPart, largestCurrent, RESISTANCE_FRACTIONS, withBlownFuses } from './enumerate';
import { faultAlteration, faultBranches, faultModes, OVERCURRENT_MODES, RESISTANCE_MODES } from './faults';
import { openingTime, openingTimeWords } from './openingTime';
import { openOverloaded } from './overload';

const models: [string, CircuitModel][] = [
  ...DEMO_CIRCUITS.map((name): [string, CircuitModel] => [name, new CircuitModel(demoCircuit(name))]),
  ...[...KIND_CIRCUITS].map(([name, circuit]): [string, CircuitModel] => [name, new CircuitModel(circuit)]),
];

function allFaults(model: CircuitModel) {
  return model.circuit.parts.flatMap((part) => faultsOfPart(model, part));
}

function differs(one: OperatingPoint, other: OperatingPoint): boolean {
  return one.volts.some((volts, node) => Math.abs(volts - other.volts[node]!) > 0.01);
}

test('every mode of every part kind occurs, and each fault has an id of its own', () => {
  const modes = new Set<string>();
  const possible = new Set<string>();
  for (const [, model] of models) {
    const faults = allFaults(model);
    const ids = faults.map(faultId);
    expect(new Set(ids).size).toBe(ids.length);
    for (const part of model.circuit.parts)
      for (const mode of faultModes(part)) possible.add(`${part.kind} ${mode}`);
    for (const fault of faults) modes.add(`${model.network.parts.get(fault.part)?.kind} ${fault.mode}`);
  }
  expect(modes).toEqual(possible);
});

test('a bad joint cuts the current of its own part to the fraction that it was chosen for, and matters', () => {
  let judged = 0;
  let asChosen = 0;
  for (const [name, model] of models) {
    for (const part of model.circuit.parts) {
      const chosen = faultsOfPart(model, part).filter((fault) => RESISTANCE_MODES.has(fault.mode));
      chosen.forEach((fault, index) => {
        const branches = faultBranches(model.network, fault);
        const before = largestCurrent(model, branches);
        const alteration = faultAlteration(model.network, fault);
        const points = model.conditions.map((one) => model.solve(one.id, alteration));
        const after = Math.max(
          ...points.flatMap((point) => branches.map((branch) => Math.abs(point.amps[branch]!))),
        );
        judged += 1;
        // Paths around the joint, and relays that hold or feed themselves, change the fraction.
        if (after / before < RESISTANCE_FRACTIONS[index % RESISTANCE_FRACTIONS.length]! * 1.15) asChosen += 1;
        const matters = points.some((point, c) => differs(point, model.sound(model.conditions[c]!.id)));
        // The slightest may do nothing where a relay still holds; the worst never.
        const worst = index % RESISTANCE_FRACTIONS.length === RESISTANCE_FRACTIONS.length - 1;
        if (worst && !matters) throw new Error(`${name} ${faultId(fault)} changes nothing`);
      });
    }
  }
  process.stdout.write(`bad joints: ${asChosen} of ${judged} cut their part's current as chosen\n`);
  expect(judged).toBeGreaterThan(300);
  expect(asChosen / judged).toBeGreaterThan(0.9);
});

test('an overcurrent fault and the fuse that it blew are one: the fuse is open and the current gone', () => {
  let pairs = 0;
  for (const [, model] of models) {
    for (const fault of allFaults(model)) {
      if (!OVERCURRENT_MODES.has(fault.mode)) {
        continue;
      }
      const blown = withBlownFuses(model, fault);
      if (!blown) continue;
      pairs += 1;
      for (const condition of model.conditions) {
        const { opened, point } = openOverloaded(model, condition.id, blown.alteration);
        expect(opened).toEqual([]);
        for (const fuse of blown.fuses) {
          expect(Math.abs(point.amps[model.network.branchesOfPart.get(fuse)![0]!]!)).toBe(0);
        }
      }
    }
  }
  expect(pairs).toBeGreaterThan(100);
});

test('a short to another feed keeps alive what the switch has turned off', () => {
  const model = new CircuitModel(demoCircuit('trailer-lamps'));
  const stray = model.circuit.parts
    .filter((part) => part.kind === 'wire')
    .map((part) => faultAlteration(model.network, { part: part.id, mode: 'short-to-feed' }));
  const offCondition = model.conditions[0]!.id;
  const alive = stray.filter((alteration) =>
    differs(model.solve(offCondition, alteration), model.sound(offCondition)),
  );
  expect(alive.length).toBeGreaterThan(0);
});

test('a reversed diode blocks what it passed', () => {
  const model = new CircuitModel(KIND_CIRCUITS.get('steering-diodes')!);
  const reversed = faultAlteration(model.network, { part: 'D1', mode: 'reversed' });
  const out = model.network.nodeIndex.get('o')!;
  expect(model.sound('S').volts[out]).toBeGreaterThan(11);
  expect(Math.abs(model.solve('S', reversed).volts[out]!)).toBeLessThan(0.01);
});

test('a relay with 30 and 86 exchanged: the coil hangs on the feed, the contact on the switch', () => {
  const model = new CircuitModel(KIND_CIRCUITS.get('relay')!);
  const wrong = faultAlteration(model.network, { part: 'R', mode: 'wrong-part' });
  const out = model.network.nodeIndex.get('o')!;
  const offPoint = model.solve('off', wrong);
  // Pulled in all the time, and its load fed through the switch.
  expect(offPoint.sensed[0]).toBe(1);
  expect(Math.abs(offPoint.volts[out]!)).toBeLessThan(0.01);
  expect(model.solve('S', wrong).volts[out]).toBeGreaterThan(11);
});

test('shorted turns leave a coil that draws much and pulls nothing', () => {
  const model = new CircuitModel(KIND_CIRCUITS.get('relay')!);
  const shorted = faultAlteration(model.network, { part: 'R', mode: 'coil-shorted' });
  const point = model.solve('S', shorted);
  expect(point.sensed[0]).toBe(0);
  const coil = model.network.branches.findIndex((branch) => branch.role === 'coil');
  expect(Math.abs(point.amps[coil]!)).toBeGreaterThan(5);
});

describe('opening time of regular blade fuses', () => {
  test.each([
    [1.35, 0.75, 600],
    [1.6, 0.25, 50],
    [2, 0.15, 5],
    [3.5, 0.04, 0.5],
  ])('at %s times the rating %s to %s s', (ratio, from, to) => {
    expect(openingTime(ratio, 'regular')).toEqual({
      fromSeconds: expect.closeTo(from, 9),
      toSeconds: expect.closeTo(to, 9),
    });
  });

  test('holds at its rating, may hold at 120 %, opens at once far above', () => {
    expect(openingTime(1, 'regular')).toBeNull();
    expect(openingTime(1.1, 'regular')).toEqual({ fromSeconds: 360000, toSeconds: Number.POSITIVE_INFINITY });
    expect(openingTime(1.2, 'regular')?.toSeconds).toBe(Number.POSITIVE_INFINITY);
    expect(openingTime(20, 'regular')).toEqual({ fromSeconds: 0, toSeconds: 0.1 });
  });

  test('more current never opens later', () => {
    let last = openingTime(1.35, 'regular')!;
    for (let ratio = 1.36; ratio < 8; ratio += 0.05) {
      const next = openingTime(ratio, 'regular')!;
      expect(next.toSeconds).toBeLessThanOrEqual(last.toSeconds);
      expect(next.fromSeconds).toBeLessThanOrEqual(last.fromSeconds);
      last = next;
    }
  });

  test('other families have no band, and every band has words', () => {
    expect(openingTime(2, 'maxi')).toBeNull();
    expect(openingTimeWords(openingTime(2, 'maxi'))).toContain('maker');
    expect(openingTimeWords(openingTime(2, 'regular'))).toBe('opens after 150 ms to 5 s');
    expect(openingTimeWords(openingTime(1.05, 'regular'))).toBe('holds for 100 h at least');
    expect(openingTimeWords(openingTime(1.2, 'regular'))).toContain('or hold');
    expect(openingTimeWords(openingTime(9, 'regular'))).toBe('opens within 100 ms');
  });
});
