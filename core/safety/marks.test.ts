/** What serves a safety function: by marks, by printed names until somebody answers, and by the slot a part sits in. */
import { circuitOf, demoCircuit } from '../../testing/circuits';
import { boxOf } from '../../testing/panels';
import { isMoving, mayBeOnSeconds } from './duty';
import {
  isSafetySlot,
  safetyMarks,
  safetyQuestions,
  slotSystem,
  suggestedSystem,
  withSlotMarks,
} from './marks';

test.each([
  ['REST CTRL', 'restraint'],
  ['SRS', 'restraint'],
  ['AIRBAG', 'restraint'],
  ['Air bag unit', 'restraint'],
  ['PRETENS', 'restraint'],
  ['ABS pump', 'brakes'],
  ['EPB', 'brakes'],
  ['EPS', 'steering'],
  ['Power steering pump', 'steering'],
  ['ALT', 'charging'],
  ['ECM', 'engine control'],
  ['INJ 1', 'engine control'],
  ['FUEL PMP', 'fuel'],
  ['Fuel pump', 'fuel'],
] as const)('%s suggests %s', (printed, system) => {
  expect(suggestedSystem(printed)).toBe(system);
});

test.each([
  'Cabinet fan',
  'Brake lamp left',
  'Rest lamp',
  'Key on, at rest',
  'Alternate feed',
  'Charging socket',
  'General lighting',
  'USB CHARGER',
  'Absorber fridge',
])('%s suggests nothing', (printed) => {
  expect(suggestedSystem(printed)).toBeNull();
});

test('the demo circuits raise no question', () => {
  for (const name of ['van-proving-cabinet', 'van-hatch-fridge', 'van-demist', 'trailer-lamps'] as const) {
    expect(safetyQuestions(demoCircuit(name))).toEqual([]);
  }
});

test('a question is asked until it is answered, by the part or by the function it is the load of', () => {
  const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
  const fan = circuit.functions.find(({ id }) => id === 'cabinet-fan')!;
  fan.name = 'ABS';
  expect(safetyQuestions(circuit)).toEqual([{ part: fan.load, name: 'ABS', system: 'brakes' }]);
  expect(safetyMarks(circuit).parts.has(fan.load)).toBe(true);
  const answered = structuredClone(circuit);
  answered.parts.find(({ id }) => id === fan.load)!.safetyCritical = false;
  expect(safetyQuestions(answered)).toEqual([]);
  expect(safetyMarks(answered).parts.has(fan.load)).toBe(false);
});

test('a mark on a load spreads along its wires and plugs, and not to what others share', () => {
  const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
  circuit.parts.find(({ id }) => id === 'M1')!.safetyCritical = true;
  const { points } = safetyMarks(circuit);
  expect(points.get('m1-plus')).toBe('safety');
  expect(points.get('c12-box')).toBe('safety');
  expect(points.has(circuit.reference)).toBe(false);
  // Its own fuse serves nothing else, nor does the fuse of the coil that switches it; the bus before them serves more.
  expect(points.get('f31-out')).toBe('safety');
  expect(points.get('f33-out')).toBe('safety');
  expect(points.has('bay-bus')).toBe(false);
});

test('the line of a module is marked as far as wires and plugs go, unless somebody allowed it', () => {
  const circuit = circuitOf({
    parts: [
      { id: 'B1', kind: 'battery', name: 'Battery', pins: { plus: 'p', minus: 'minus' } },
      {
        id: 'MO1',
        kind: 'module-output',
        name: 'Module',
        side: 'high',
        rule: [{ key: ['run'] }],
        pins: { plus: 'p', minus: 'minus', out: 'o' },
      },
      { id: 'W1', kind: 'wire', name: 'Wire', pins: { a: 'o', b: 'w' } },
      { id: 'L1', kind: 'lamp', name: 'Lamp', watts: 5, pins: { plus: 'w', minus: 'minus' } },
    ] as never,
  });
  expect([...safetyMarks(circuit).points]).toEqual([
    ['o', 'no-load'],
    ['w', 'no-load'],
  ]);
  const allowed = structuredClone(circuit);
  allowed.nodes.find(({ id }) => id === 'w')!.probe = 'allowed';
  expect(safetyMarks(allowed).points.has('w')).toBe(false);
});

test('a part in a slot whose printed name suggests a safety function is one, until the slot is answered', () => {
  const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
  const fuse = circuit.parts.find(({ id }) => id === 'F31')!;
  const { panels } = boxOf(2, 2, (index) => (index === 0 ? { label: 'REST CTRL' } : {}));
  fuse.slot = { panel: 'seat-box', slot: 'fuse-1' };
  expect(slotSystem(panels[0]!.slots[0]!)).toBe('restraint');
  expect(withSlotMarks(circuit, panels).parts.find(({ id }) => id === 'F31')!.safetyCritical).toBe(true);
  panels[0]!.slots[0]!.safetyCritical = false;
  expect(isSafetySlot(panels[0]!.slots[0]!)).toBe(false);
  expect(withSlotMarks(circuit, panels)).toBe(circuit);
});

test('what moves and what may be on for seconds only: by mark before name', () => {
  const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
  expect(isMoving(circuit, 'cabinet-fan')).toBe(true);
  expect(mayBeOnSeconds(circuit, 'cabinet-fan')).toBeNull();
  const fan = circuit.functions.find(({ id }) => id === 'cabinet-fan')!;
  fan.name = 'Winch';
  expect(mayBeOnSeconds(circuit, 'cabinet-fan')).toBe(10);
  Object.assign(circuit.parts.find(({ id }) => id === fan.load)!, { onSeconds: 20, moves: false });
  expect(mayBeOnSeconds(circuit, 'cabinet-fan')).toBe(20);
  expect(isMoving(circuit, 'cabinet-fan')).toBe(false);
});
