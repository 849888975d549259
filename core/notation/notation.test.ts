/** The notation: there and back again, typical mistakes, and text that is no circuit at all. */
import fc from 'fast-check';
import { DEMO_CIRCUITS, demoCircuit, demoText } from '../../testing/circuits';
import { KIND_CIRCUITS, OTHER_VOLTAGES } from '../../testing/kindCircuits';
import { randomCircuit } from '../../testing/randomCircuit';
import { vehicleCircuit } from '../../testing/vehicleCircuit';
import type { CircuitFile } from '../format/circuitSchema';
import type { Panel } from '../format/panelSchema';
import { readNotation } from './read';
import { suggest } from './suggest';
import { writeNotation } from './write';

/** A circuit without the order of its lists, which means nothing. */
function unordered(circuit: CircuitFile): unknown {
  const byId = <T extends { id: string }>(list: readonly T[]) =>
    list.slice().sort((one, other) => (one.id < other.id ? -1 : 1));
  return {
    ...circuit,
    nodes: byId(circuit.nodes),
    parts: byId(circuit.parts),
    places: byId(circuit.places),
    // No switch named is the same as none to name.
    conditions: circuit.conditions.map(({ switches, ...one }) =>
      Object.keys(switches ?? {}).length === 0 ? one : { ...one, switches },
    ),
  };
}

const CIRCUITS: readonly (readonly [string, CircuitFile])[] = [
  ...DEMO_CIRCUITS.map((name) => [name, demoCircuit(name)] as const),
  ...[...KIND_CIRCUITS].map(([name, circuit]) => [`kind ${name}`, circuit] as const),
  ...[...OTHER_VOLTAGES].map(([name, circuit]) => [`volts ${name}`, circuit] as const),
  ...[10, 40, 120].map((size) => [`vehicle ${size}`, vehicleCircuit(7, size)] as const),
];

describe('there and back', () => {
  test.each(CIRCUITS)('%s, the text alone is the whole file', (_name, circuit) => {
    const read = readNotation(writeNotation(circuit, { everything: true }));
    expect(read.problems).toEqual([]);
    expect(unordered(read.circuit!)).toEqual(unordered(circuit));
  });
  test.each(CIRCUITS)('%s, the short text with the circuit it was made from', (_name, circuit) => {
    const read = readNotation(writeNotation(circuit, { everything: false }), circuit);
    expect(read.problems).toEqual([]);
    expect(unordered(read.circuit!)).toEqual(unordered(circuit));
  });
  test('random networks, and the text written from what was read is the same text', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 5, max: 60 }), (seed, size) => {
        const circuit = randomCircuit(seed, size);
        const text = writeNotation(circuit, { everything: true });
        const read = readNotation(text);
        expect(read.problems).toEqual([]);
        expect(unordered(read.circuit!)).toEqual(unordered(circuit));
        const short = writeNotation(circuit, { everything: false });
        expect(unordered(readNotation(short, circuit).circuit!)).toEqual(unordered(circuit));
        // A text settles after one round: written, read and written again, it stays what it is.
        const again = writeNotation(read.circuit!, { everything: true });
        expect(writeNotation(readNotation(again).circuit!, { everything: true })).toBe(again);
      }),
      { numRuns: 60 },
    );
  });
});

/** Text with one mistake, the words that name it, and the letters it stands at. */
const GOOD = 'circuit test 12 V\nbattery, fuse F1 10 A, switch S1, lamp L1 21 W, earth G1';
const MISTAKES: readonly (readonly [name: string, text: string, says: RegExp, at: string])[] = [
  ['a part misspelt', 'battery, fuze F1 10 A, lamp L1, earth', /Did you mean “fuse”/, 'fuze'],
  [
    'no rating',
    'battery, breaker CB1 manual, lamp L1, earth',
    /Say of breaker CB1 its rating, “20 A”/,
    'breaker CB1 manual',
  ],
  ['a number without a unit', 'battery, fuse F1 10, lamp L1, earth', /10 of what\? .*10 A/, '10'],
  [
    'a unit that does not belong',
    'battery, fuse F1 10 W, lamp L1, earth',
    /W says nothing about a fuse.*A/,
    '10 W',
  ],
  [
    'a unit that is none',
    'battery, fuse F1 10 A, lamp L1 5 lux, earth',
    /“lux” is not understood|5 of what/,
    '5',
  ],
  [
    'a number with two readings',
    'battery, fuse F1 10 A, resistor RS1 1,200 ohm, earth',
    /two ways. Write 1200 or 1\.200/,
    '1,200 ohm',
  ],
  ['nothing but zero', 'battery, fuse F1 0 A, lamp L1, earth', /above 0/, '0 A'],
  [
    'a comma left out',
    'battery, fuse F1 10 A lamp L1 21 W, earth',
    /“lamp” begins a new part. Put a comma/,
    'lamp',
  ],
  [
    'a relay without its way',
    'battery, fuse F1 10 A, relay R1, lamp L1, earth',
    /Which way through relay R1\? .*“contact”.*“coil”/,
    'relay R1',
  ],
  [
    'a terminal that is not there',
    'battery, fuse F1 10 A, relay R1 30>88, lamp L1, earth',
    /no terminal “88”\. It has 30, 87/,
    '30>88',
  ],
  [
    'a relay whose coil hangs',
    'battery, fuse F1 10 A, relay R1 contact, lamp L1, earth',
    /R1 is joined to nothing at 8[56] and 8[56].*relay R1 coil/,
    'relay R1 contact',
  ],
  [
    'one name for two parts',
    'battery, fuse X1 10 A, lamp X1, earth',
    /X1 is a fuse already \(line 1\)/,
    'X1',
  ],
  [
    'two ratings',
    `${GOOD}\nfrom F1.in, fuse F1 15 A, lamp L2, earth`,
    /F1 has another ratingAmps already/,
    '15 A',
  ],
  [
    'a point that nothing meets',
    `${GOOD}\nfrom F11, lamp L2, earth`,
    /Nothing else meets at “F11”\. Did you mean “F1”/,
    'from F11',
  ],
  ['a line that ends in the air', 'battery, fuse F1 10 A, lamp L1', /ends in the air behind L1/, 'lamp L1'],
  ['a line without a feed', `${GOOD}\nlamp L2 5 W, earth`, /Where does L2 get its feed from/, 'lamp L2 5 W'],
  [
    'parts behind earth',
    'battery, fuse F1 10 A, earth G1, lamp L1, earth',
    /ended at earth already/,
    'lamp L1',
  ],
  [
    'a key without positions',
    'battery, fuse F1 10 A, key K1, lamp L1, earth',
    /in which key positions/,
    'key K1',
  ],
  [
    'a key position that is none',
    'battery, fuse F1 10 A, key K1 run|onn, lamp L1, earth',
    /“onn” is no key position/,
    'run|onn',
  ],
  [
    'a quote left open',
    'battery, fuse F1 10 A, lamp L1 "Step lamp, earth',
    /quote is not closed/,
    '"Step lamp, earth',
  ],
  [
    'no battery',
    'from plus, fuse F1 10 A, lamp L1, to minus\nfrom minus, lamp L2, to plus',
    /There is no battery/,
    '',
  ],
  [
    'a colour that is none',
    'battery, fuse F1 10 A, wire W1 XX/YY, lamp L1, earth',
    /no wire colour/,
    'XX/YY',
  ],
  [
    'a switch of a condition that is not there',
    `${GOOD}\nwhen on: key run, S2 on`,
    /“S2” is not a switch/,
    '',
  ],
  [
    'a key position of a condition',
    `${GOOD}\nwhen on: key rum, S1 on`,
    /“rum” is no key position\. Did you mean “run”/,
    'key rum',
  ],
  ['a function without its load', `${GOOD}\nfunction step: L9`, /“L9” is not a load/, ''],
  ['a voltage that is none', GOOD.replace('12 V', '13 V'), /13 V is no nominal voltage/, '13'],
  ['no voltage', 'battery, fuse F1 10 A, lamp L1, earth', /Which nominal voltage\?/, ''],
  [
    '“from” in mid-line',
    'battery, fuse F1 10 A, from F1, lamp L1, earth',
    /“from” stands at the start/,
    'from F1',
  ],
];

describe('mistakes', () => {
  test('the text that the mistakes are made in is sound', () => {
    const read = readNotation(GOOD);
    expect(read.problems).toEqual([]);
    expect(read.circuit?.parts.map((part) => part.id)).toEqual(['B1', 'F1', 'S1', 'L1', 'G1']);
    expect(read.circuit?.conditions.map((one) => one.name)).toEqual([
      'Key off, everything off',
      'Key off, Switch S1 on',
    ]);
    expect(read.circuit?.functions).toEqual([{ id: 'l1', name: 'Lamp L1', load: 'L1' }]);
  });
  test.each(MISTAKES)('%s', (_name, text, says, at) => {
    const { circuit, problems } = readNotation(text);
    expect(circuit).toBeNull();
    const found = problems.find((one) => says.test(one.message));
    expect(problems.map((one) => one.message)).toEqual(expect.arrayContaining([expect.stringMatching(says)]));
    const line = text.split('\n')[found!.line - 1]!;
    expect(found!.to).toBeGreaterThan(found!.from);
    if (at !== '') expect(line.slice(found!.from, found!.to)).toBe(at);
  });
  test('a decimal comma and a separating comma are told apart', () => {
    const { circuit } = readNotation(
      'circuit c 12 V\nbattery, fuse F1 7,5 A, wire W1 1,5 mm² 0,8 m, lamp L1 21W,earth',
    );
    expect(circuit?.parts.find((part) => part.id === 'F1')).toMatchObject({ ratingAmps: 7.5 });
    expect(circuit?.parts.find((part) => part.id === 'W1')).toMatchObject({
      sizeMm2: 1.5,
      lengthMetres: 0.8,
    });
  });
  test('whatever is typed, an answer comes back', () => {
    const word = fc.oneof(
      fc.constantFrom(
        'battery',
        'fuse',
        'F1',
        '10 A',
        'relay',
        'R1',
        'coil',
        'contact',
        ',',
        'from',
        'to',
        'earth',
      ),
      fc.constantFrom(
        '[',
        ']',
        '"',
        '=',
        'key',
        'run|crank',
        'splice',
        'SP1',
        'switch',
        '>',
        ':',
        'when',
        'point',
      ),
      fc.constantFrom(
        'place',
        'function',
        'open',
        'S1 on',
        '\n',
        '1,200',
        '-3',
        '{',
        'rule=[{',
        '__proto__',
        'at',
      ),
      fc.string({ maxLength: 6 }),
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 40 }), (words) => {
        const read = readNotation(words.join(' '));
        expect(read.circuit === null).toBe(read.problems.length > 0);
      }),
      { numRuns: 1500 },
    );
  });
});

describe('suggestions', () => {
  const van = demoCircuit('van-proving-cabinet');
  const panels = (JSON.parse(demoText('van.panel-set.json')) as { panels: Panel[] }).panels;
  const at = (line: string) => suggest(line, line.length, { parts: van.parts, panels });
  const inserts = (line: string) => at(line).list.map((one) => one.insert);
  test('parts where a part begins, the ways of a relay behind it, points behind “from”', () => {
    expect(inserts('')).toEqual(expect.arrayContaining(['battery, ', 'from ', 'fuse ']));
    expect(inserts('battery, fu')).toContain('fuse ');
    expect(inserts('battery, relay R4 ')).toEqual(expect.arrayContaining(['contact', 'coil']));
    expect(inserts('from R4')).toEqual(expect.arrayContaining(['R4', 'R4.87']));
    expect(inserts('battery, key K1 ru')).toContain('run|crank');
  });
  test('slots of the vehicle come with their rating and place, and what is taken replaces the word', () => {
    const { from, list } = at('battery, F31');
    expect(from).toBe(9);
    expect(list[0]!.insert).toBe('fuse F31 15 A mini slot bay/fuse-31');
    const { circuit } = readNotation(`circuit c 12 V\nbattery, ${list[0]!.insert}, lamp L1, earth`);
    expect(circuit?.parts[1]).toMatchObject({ ratingAmps: 15, slot: { panel: 'bay', slot: 'fuse-31' } });
  });
});
