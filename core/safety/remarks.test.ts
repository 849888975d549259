/** Remarks on a circuit as it is written. */
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { ampacity, sizeFor } from '../limits/ampacity';
import { circuitOfPattern, PATTERNS } from '../notation/patterns';
import { readNotation } from '../notation/read';
import { goneFrom, remarksOn } from './remarks';

const read = (...lines: readonly string[]) => {
  const { circuit, problems } = readNotation(['circuit c "C" 12 V', ...lines].join('\n'));
  if (!circuit) throw new Error(problems.map(({ message }) => message).join(' '));
  return circuit;
};
const words = (...lines: readonly string[]) => remarksOn(read(...lines)).map((one) => one.words);

test('a load that the battery reaches without a fuse, also through a relay, and not behind a fuse or a coil', () => {
  expect(words('battery, switch S1, lamp L1 "Step lamp" 5 W, earth G1')).toEqual([
    'Step lamp is reached from the battery without a fuse.',
  ]);
  expect(words('battery, fuse F1 10 A, switch S1, lamp L1 "Step lamp" 5 W, earth G1')).toEqual([]);
  expect(
    words(
      'battery, relay R1 contact, lamp L1 "Step lamp" 5 W, earth G1',
      'battery, fuse F1 5 A, switch S1, relay R1 coil, earth G2',
    ),
  ).toEqual(['Step lamp is reached from the battery without a fuse.']);
});

test('a wire above what it carries for good, with the size that would', () => {
  const thin = read(
    'battery, fuse F1 40 A, wire W1 0.5 mm² 1 m, switch S1, heater L1 "Plate" 360 W, earth G1',
  );
  const [remark] = remarksOn(thin);
  expect(remark).toMatchObject({ about: 'W1' });
  expect(remark!.words).toMatch(/0\.5 mm² carries \d+\.\d A here, and 11 A for good/);
  expect(remark!.mend).toContain('mm² carries it in free air');
  expect(
    remarksOn(read('battery, fuse F1 10 A, wire W1 1.5 mm² 1 m, switch S1, lamp L1 5 W, earth G1')),
  ).toEqual([]);
  expect([ampacity(0.5), ampacity(1.2), ampacity(60)]).toEqual([11, 16.5, 230]);
  expect([sizeFor(20), sizeFor(500)]).toEqual([1.5, null]);
});

test('a short-time load on a switch that stays, and not on a button', () => {
  const winch = (kind: string) =>
    words(`battery, fuse F1 40 A, switch S1 "Winch switch"${kind}, motor M1 "Winch" 300 W, earth G1`);
  expect(winch('')).toEqual(['Winch is made for 10 s at a time, and Winch switch stays where it is put.']);
  expect(winch(' momentary')).toEqual([]);
});

test('a function that no condition has on, and a condition with nothing on', () => {
  const said = words(
    'battery, fuse F1 10 A, switch S1, switch S2, lamp L1 "Step lamp" 5 W, earth G1',
    'when off "Off": key off',
    'when half "Half": key run, S1 on',
  );
  expect(said).toEqual([
    'No condition has Step lamp on, so it can never be traced.',
    'In “Half” nothing is on, although something is switched.',
  ]);
});

test('functions and conditions that a text has no more are named before they go', () => {
  const before = read(
    'battery, fuse F1 10 A, switch S1, lamp L1 "Step lamp" 5 W, earth G1',
    'function step "Step lamp": L1',
    'when on "On": key run, S1 on',
    'when off "Off": key off',
  );
  const after = { ...before, functions: [], conditions: before.conditions.slice(0, 1) };
  expect(goneFrom(before, after).map((one) => one.about)).toEqual(['step', before.conditions[1]!.id]);
  expect(goneFrom(before, before)).toEqual([]);
});

test('the circuits of the demo and the patterns give no cause to remark that they are not meant to give', () => {
  for (const name of DEMO_CIRCUITS) expect(remarksOn(demoCircuit(name)).map((one) => one.words)).toEqual([]);
  for (const pattern of PATTERNS) {
    const { circuit } = circuitOfPattern(pattern, { load: 'Step light', kind: 'lamp', nominalVolts: 12 });
    expect({ pattern: pattern.id, remarks: remarksOn(circuit).map((one) => one.words) }).toEqual({
      pattern: pattern.id,
      remarks: [],
    });
  }
});
