/** Files of one vehicle joined: the stricter of two always wins, a disagreement is always said, the order never matters. */
import fc from 'fast-check';
import type { CircuitFile } from '../format/circuitSchema';
import { readNotation } from '../notation/read';
import { mergeCircuits } from './merge';

const [LAMP, FAN, HEATER] = [
  'battery, fuse F1 20 A, switch S1, lamp L1 "Shelf lamp" 10 W, earth G1',
  'battery, fuse F1 20 A, switch S2, motor M1 "Fan" 60 W, earth G2',
  'battery, fuse F1 20 A, switch S1, heater H1 "Tray heater" 90 W, earth G3',
].map((line, index) => readNotation(`circuit part-${index} "Part ${index}" 12 V\n${line}\n`).circuit!) as [
  CircuitFile,
  CircuitFile,
  CircuitFile,
];

/** The file with what it says of the shared points, places and conditions changed. */
function saying(
  file: CircuitFile,
  said: {
    readonly probe?: 'allowed' | 'no-load' | 'do-not-probe';
    readonly minutes?: number;
    readonly toOpen?: number;
    readonly caution?: string;
  },
): CircuitFile {
  const shared = file.parts.find((part) => part.id === 'F1')!.pins as { in: string };
  return {
    ...file,
    nodes: file.nodes.map((node) =>
      node.id === shared.in
        ? {
            ...node,
            ...(said.probe ? { probe: said.probe } : {}),
            access: node.access?.map((one) => ({
              ...one,
              ...(said.minutes === undefined ? {} : { minutes: said.minutes }),
            })),
          }
        : node,
    ),
    places: file.places.map((place) =>
      place.id === 'fuse-box'
        ? {
            ...place,
            minutesToOpen: said.toOpen ?? place.minutesToOpen,
            ...(said.caution ? { caution: said.caution } : {}),
          }
        : place,
    ),
  };
}

const STRICT = ['allowed', 'no-load', 'do-not-probe'] as const;
const said = fc.record(
  {
    probe: fc.constantFrom(...STRICT),
    minutes: fc.integer({ min: 0, max: 20 }),
    toOpen: fc.integer({ min: 1, max: 60 }),
    caution: fc.constantFrom('Hot parts', 'Fan starts by itself', 'Fuel vapour'),
  },
  { requiredKeys: [] },
);

test('order never matters, and nothing stricter is ever lost', () => {
  fc.assert(
    fc.property(
      fc.tuple(said, said, said),
      fc.constantFrom([0, 1, 2], [2, 1, 0], [1, 2, 0]),
      (all, order) => {
        const files = [LAMP, FAN, HEATER].map((file, index) => saying(file, all[index]!));
        const joined = mergeCircuits(files);
        expect(mergeCircuits(order.map((index) => files[index]!))).toEqual(joined);
        expect(joined.problems).toEqual([]);
        const feed = (LAMP.parts.find((part) => part.id === 'F1')!.pins as { in: string }).in;
        const node = joined.circuit.nodes.find((one) => one.id === feed)!;
        const place = joined.circuit.places.find((one) => one.id === 'fuse-box')!;
        for (const one of all) {
          expect(STRICT.indexOf(node.probe ?? 'allowed')).toBeGreaterThanOrEqual(
            STRICT.indexOf(one.probe ?? 'allowed'),
          );
          expect(place.minutesToOpen).toBeGreaterThanOrEqual(one.toOpen ?? 0);
          if (one.caution) expect(place.caution).toContain(one.caution);
          for (const way of node.access ?? [])
            expect(way.minutes ?? 0).toBeGreaterThanOrEqual(one.minutes ?? 0);
        }
      },
    ),
  );
});

const condition = (file: CircuitFile, fields: object): CircuitFile => ({
  ...file,
  conditions: [...file.conditions, { id: 'cruise', name: 'Cruising', key: 'run', ...fields }],
});

test.each([
  ['key', { key: 'run' }, { key: 'accessory' }],
  ['engine running', { engineRunning: true }, { engineRunning: false }],
  ['engine running, by one alone', { engineRunning: true }, {}],
  ['a switch of both', { switches: { S1: 'on' } }, { switches: { S1: 'off' } }],
  ['a switch of both, by one alone', { switches: { S1: 'on' } }, {}],
  ['after', { after: 'all-off' }, { after: 'cruise-before' }],
  ['seconds', { secondsIn: 2 }, { secondsIn: 30 }],
  ['phase', { phase: 'on' }, { phase: 'off' }],
])('%s: two files that mean another condition by the same id are told apart in words', (_, one, other) => {
  const files = [condition(LAMP, one), condition(HEATER, other)];
  const { problems } = mergeCircuits(files);
  expect(problems).toHaveLength(1);
  expect(problems[0]?.message).toMatch(/Part 0.*Part 2/);
  expect(mergeCircuits(files.reverse()).problems).toEqual(problems);
});

test('a switch that only one of them has is no disagreement', () => {
  const { circuit, problems } = mergeCircuits([
    condition(LAMP, { switches: { S1: 'on' } }),
    condition(FAN, { switches: { S2: 'on' } }),
  ]);
  expect(problems).toEqual([]);
  expect(circuit.conditions.find((one) => one.id === 'cruise')?.switches).toEqual({ S1: 'on', S2: 'on' });
});

test('one function of two loads is a problem in words', () => {
  const shelf = { id: 'comfort', name: 'Comfort', load: 'L1' };
  const { problems } = mergeCircuits([
    { ...LAMP, functions: [...LAMP.functions, shelf] },
    { ...FAN, functions: [...FAN.functions, { ...shelf, load: 'M1' }] },
  ]);
  expect(problems.map((one) => one.path)).toEqual(['/functions/comfort/load']);
});
