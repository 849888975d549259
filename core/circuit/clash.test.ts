/** A second circuit drawn for a vehicle, with ids that the first one gave already. */
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { CircuitModel } from '../network/model';
import { readNotation, writeNotation } from '../notation';
import { checkCircuit } from './checkCircuit';
import { clashesWith } from './clash';
import { fitted } from './fit';
import { mergeCircuits } from './merge';

const VAN = DEMO_CIRCUITS.filter((name) => name.startsWith('van')).map(demoCircuit);

function drawn(text: string) {
  const { circuit, problems } = readNotation(text);
  if (!circuit) throw new Error(problems.map(({ message }) => message).join(' '));
  return circuit;
}

const FIRST = drawn(
  [
    'circuit step "Step lamp" 12 V',
    'battery, fuse F9 60 A, wire W1 [bus]',
    'from bus, fuse F1 10 A, wire W2, switch S1, lamp L1 "Step lamp" 10 W, wire W3, earth G1',
  ].join('\n'),
);
const SECOND = drawn(
  [
    'circuit pump "Bilge pump" 12 V',
    'battery, fuse F1, wire W2, switch S1, pump M1 "Bilge pump" 40 W, earth G1',
  ].join('\n'),
);

function works(circuit: typeof FIRST, load: string, settings: Readonly<Record<string, string>>) {
  const model = new CircuitModel(circuit);
  const one = circuit.functions.find((each) => each.load === load)!;
  const condition = circuit.conditions.find(({ switches = {} }) =>
    circuit.parts.every(
      (part) =>
        part.kind !== 'switch' || (switches[part.id] ?? part.rest) === (settings[part.id] ?? part.rest),
    ),
  )!;
  return model.outcome(one, model.sound(condition.id));
}

test('each id given already is found, with a free one to call it by; the battery is no question', () => {
  const clashes = clashesWith(SECOND, [FIRST]);
  expect(clashes.map(({ id, proposal }) => [id, proposal])).toEqual([
    ['F1', 'F1.2'],
    ['W2', 'W2.2'],
    ['S1', 'S1.2'],
    ['G1', 'G1.2'],
  ]);
  expect(clashes.every(({ apart, circuit }) => apart === null && circuit === 'Step lamp')).toBe(true);
});

test('of another kind it cannot be the same part, and neither where a safety mark would be lost', () => {
  const relay = drawn('circuit b 12 V\nbattery, fuse F3 5 A, lamp W2 5 W, earth G4');
  expect(clashesWith(relay, [FIRST])[0]).toMatchObject({ id: 'W2', apart: /no such part/ });
  const marked = { ...SECOND, parts: SECOND.parts.map((part) => ({ ...part, safetyCritical: true })) };
  expect(clashesWith(marked, [FIRST])[0]).toMatchObject({ id: 'F1', apart: /safety function/ });
});

test('as other parts both circuits stay what they are', () => {
  const { circuit, torn } = fitted(SECOND, [FIRST], {});
  expect(torn).toEqual([]);
  expect(checkCircuit(circuit)).toMatchObject({ ok: true });
  const together = mergeCircuits([FIRST, circuit]);
  expect(together.problems).toEqual([]);
  expect(together.circuit.parts.filter(({ kind }) => kind === 'battery')).toHaveLength(1);
  for (const file of [circuit, together.circuit]) {
    expect(works(file, 'M1', { 'S1.2': 'on' })).toBe('works');
    expect(works(file, 'M1', {})).toBe('dead');
  }
  expect(new Set(circuit.parts.map(({ id }) => id))).toEqual(
    new Set(['B1', 'F1.2', 'W2.2', 'S1.2', 'M1', 'G1.2']),
  );
});

test('the same fuse hangs where the vehicle has it, and what the sketch left out before it comes along', () => {
  const { circuit, torn } = fitted(SECOND, [FIRST], { same: ['F1'] });
  expect(torn).toEqual([]);
  expect(checkCircuit(circuit)).toMatchObject({ ok: true });
  expect(circuit.parts.map(({ id }) => id)).toEqual(expect.arrayContaining(['F1', 'F9', 'W1']));
  // What only the vehicle said of it holds here too.
  expect(circuit.parts.find(({ id }) => id === 'F1')).toMatchObject({ ratingAmps: 10 });
  expect(works(circuit, 'M1', { 'S1.2': 'on' })).toBe('works');
  const { circuit: together, problems } = mergeCircuits([FIRST, circuit]);
  expect(problems).toEqual([]);
  const model = new CircuitModel(together);
  const on = together.conditions.find(({ switches }) => switches?.['S1.2'] === 'on')!;
  const branch = together.functions.find(({ load }) => load === 'M1')!;
  expect(model.outcome(branch, model.sound(on.id))).toBe('works');
});

test('parts that meet here and do not meet on the vehicle are told, not joined', () => {
  const odd = drawn('circuit odd 12 V\nbattery, fuse F1, wire W3, lamp L7 5 W, earth G7');
  const { torn } = fitted(odd, [FIRST], { same: ['F1', 'W3'] });
  expect(torn).toHaveLength(1);
});

test('a new version asks of its new parts only, and keeps every id that it had', () => {
  const { circuit: saved } = fitted(SECOND, [FIRST], { same: ['F1'] });
  const model = new CircuitModel(saved);
  expect(clashesWith(saved, [FIRST], saved)).toEqual([]);
  expect(fitted(saved, [FIRST], { saved }).circuit).toEqual(saved);
  const more = readNotation(
    `${writeNotation(saved, { everything: false })}\nfrom F1, wire W3, lamp L1 "Bilge lamp" 5 W, wire W9, earth G9\nfunction bilge-lamp "Bilge lamp": L1\n`,
    saved,
  ).circuit!;
  expect(clashesWith(more, [FIRST], saved).map(({ id }) => id)).toEqual(['W3', 'L1']);
  const { circuit, torn } = fitted(more, [FIRST], { saved });
  expect(torn).toEqual([]);
  expect(checkCircuit(circuit)).toMatchObject({ ok: true });
  const ids = circuit.parts.map(({ id }) => id);
  expect(ids).toEqual(
    expect.arrayContaining([...saved.parts.map(({ id }) => id), 'W3.2', 'L1.2', 'W9', 'G9']),
  );
  expect(circuit.conditions).toEqual(saved.conditions);
  expect(mergeCircuits([FIRST, circuit]).problems).toEqual([]);
  const grown = new CircuitModel(circuit);
  for (const { id } of saved.conditions) {
    expect(grown.outcome(circuit.functions[0]!, grown.sound(id))).toBe(
      model.outcome(saved.functions[0]!, model.sound(id)),
    );
  }
});

test('what a circuit calls .2 itself keeps that id, and what is proposed is what it gets', () => {
  const { circuit: saved } = fitted(SECOND, [FIRST], {});
  const text = `${writeNotation(saved, { everything: false })}\nfrom F1.2, wire W9, switch S1, lamp L9 5 W, earth G9\n`;
  const more = readNotation(text, saved).circuit!;
  for (const before of [saved, null]) {
    const { circuit } = fitted(more, [FIRST], { saved: before });
    const ids = circuit.parts.map(({ id }) => id);
    expect(ids).toEqual(expect.arrayContaining(saved.parts.map(({ id }) => id)));
    expect(new Set(ids).size).toBe(ids.length);
    const [clash] = clashesWith(more, [FIRST], before);
    expect(clash).toMatchObject({ id: 'S1', proposal: 'S1.3' });
    expect(ids).toContain('S1.3');
  }
});

test.each(VAN.map((file) => [file.name, file] as const))('%s saved as it is stays as it is', (_, file) => {
  const others = VAN.filter(({ id }) => id !== file.id);
  expect(clashesWith(file, others, file)).toEqual([]);
  expect(fitted(file, others, { saved: file })).toEqual({ circuit: file, torn: [] });
});

test('another battery on a vehicle whose own stands on a strap to the body: its earth is that body', () => {
  const house = drawn(
    'circuit house 12 V\nbattery B2 "House battery", fuse F97 10 A, lamp L97 5 W, earth G97',
  );
  const { circuit } = fitted(house, VAN, { ownBattery: true });
  expect(checkCircuit(circuit)).toMatchObject({ ok: true });
  expect(mergeCircuits([...VAN, circuit]).problems).toEqual([]);
  const model = new CircuitModel(circuit);
  expect(model.conditions.some(({ id }) => model.expectedOn(circuit.functions[0]!, id))).toBe(true);
});

test('another battery stays another battery', () => {
  const house = drawn('circuit house 12 V\nbattery B2 "House battery", fuse F7 10 A, lamp L7 5 W, earth G7');
  const { circuit } = fitted(house, [FIRST], { ownBattery: true });
  expect(circuit.parts.find(({ kind }) => kind === 'battery')).toMatchObject({
    id: 'B2',
    name: 'House battery',
  });
  expect(mergeCircuits([FIRST, circuit]).problems).toEqual([]);
  // Of two batteries that the vehicle has, the one that is named.
  const more = drawn('circuit more 12 V\nbattery B2, fuse F8 10 A, lamp L8 5 W, earth G8');
  const named = fitted(more, [FIRST, circuit], {}).circuit;
  expect(named.parts.find(({ kind }) => kind === 'battery')).toMatchObject({ name: 'House battery' });
  expect(mergeCircuits([FIRST, circuit, named]).problems).toEqual([]);
});
