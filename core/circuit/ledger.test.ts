/** The wire ledger, and what is read before a wire is cut. */
import fc from 'fast-check';
import { demoCircuit } from '../../testing/circuits';
import { cutGate, toneGate, type WireReading } from '../hands/cutting';
import { KEY_STATES } from '../limits/slotReadings';
import { byColour, sameColour, wireLedger } from './ledger';

const van = demoCircuit('van-proving-cabinet');
const rows = wireLedger(van);

describe('ledger', () => {
  test('every wire has a line, with both its ends in words', () => {
    expect(rows).toHaveLength(van.parts.filter((part) => part.kind === 'wire').length);
    expect(rows.find((one) => one.wire === 'W32')).toMatchObject({
      colour: 'GN/RD',
      sizeMm2: 1.5,
      state: 'in-use',
      a: { words: 'Relay 4, cabinet fan, 87', joined: true },
      b: { words: 'Plug C12 cavity 3' },
      goesOn: ['RD behind Plug C12 cavity 3'],
      open: [],
    });
    expect(rows.every((one) => one.open.length === 0)).toBe(true);
  });
  test('in one line of a list an end is named by the ids of the map, and how many more meet there', () => {
    const idOf = new Map(van.parts.map((part) => [part.id, part]));
    expect(rows.find((one) => one.wire === 'W32')!.a.short).toBe('R4 87');
    for (const { wire, a, b } of rows) {
      for (const { short } of [a, b]) {
        const [, id = '', more] = /^([^ /]+)[^+]*(?:\+(\d+))?$/.exec(short!)!;
        const end = idOf.get(id)!;
        const node = Object.values(idOf.get(wire)!.pins).find((one) => Object.values(end.pins).includes(one));
        expect(node).toBeDefined();
        const meets = van.parts.filter(
          (part) => part.id !== wire && part.kind !== 'wire' && Object.values(part.pins).includes(node!),
        );
        expect(Number(more ?? 0)).toBeGreaterThanOrEqual(meets.length - 1);
      }
    }
  });
  test('base and tracer exchanged are another wire', () => {
    expect(sameColour('BN/WH', 'WH/BN')).toBe(false);
    expect(byColour(rows, 'gn/rd').map((one) => one.wire)).toEqual(['W32']);
    expect(byColour(rows, 'RD/GN')).toEqual([]);
    expect(byColour(rows, 'GN').map((one) => one.wire)).toEqual(['W41', 'W32']);
    expect(byColour(rows, ' ')).toHaveLength(rows.length);
  });
  test('an unused wire is owed both its ends', () => {
    const spare = {
      ...van,
      nodes: [...van.nodes, { id: 'spare', name: 'spare end' }],
      parts: [
        ...van.parts,
        {
          id: 'W99',
          kind: 'wire' as const,
          name: 'Spare wire',
          pins: { a: 'bay-bus', b: 'spare' },
          state: 'unused' as const,
        },
      ],
    };
    const owed = wireLedger(spare).find((one) => one.wire === 'W99')!.open;
    expect(owed).toEqual(expect.arrayContaining(['end b is not accounted for']));
    const said = {
      ...spare,
      parts: spare.parts.map((part) =>
        part.id === 'W99' ? { ...part, endB: 'taped back behind the box' } : part,
      ),
    };
    const left = wireLedger(said as typeof van).find((one) => one.wire === 'W99')!;
    expect(left.b.words).toBe('taped back behind the box');
    expect(left.open).toEqual(['unused: take it out of its cavity, or insulate both ends']);
  });
});

describe('before a wire is cut', () => {
  const reading = (
    end: 'a' | 'b',
    state: (typeof KEY_STATES)[number],
    lamp: 'lit' | 'off',
    id = `${end} ${state}`,
  ): WireReading => ({ id, wire: 'W32', end, state, value: { lamp }, testerProved: true });
  const all = (['a', 'b'] as const).flatMap((end) => KEY_STATES.map((state) => reading(end, state, 'off')));
  const isolated = ['key-off', 'earthed-pole-off', 'dead-reading'] as const;

  test('both ends dead in every state, and isolated: it may be cut, and toned', () => {
    const gate = cutGate(all, isolated, 12);
    expect(gate).toMatchObject({ allowed: true, missing: [], live: [] });
    expect(toneGate(gate).allowed).toBe(true);
  });
  test('one reading missing, one end unentered, a live one, an unproved tester, no isolation: each blocks in words', () => {
    expect(cutGate(all.slice(1), isolated, 12).sentence).toContain('End a still has to be read: key off');
    expect(
      cutGate(
        all.filter((one) => one.end === 'a'),
        isolated,
        12,
      ).sentence,
    ).toContain('End b still has to be read');
    const live = cutGate([...all, reading('b', 'crank', 'lit', 'later')], isolated, 12);
    expect(live).toMatchObject({ allowed: false, live: [{ end: 'b', state: 'crank' }] });
    expect(toneGate(live).allowed).toBe(false);
    const unproved = all.map((one, index) => (index === 3 ? { ...one, testerProved: false } : one));
    expect(cutGate(unproved, isolated, 12).sentence).toContain('not proved');
    // Read again with a proved tester, the new reading stands.
    expect(cutGate([...unproved, all[3]!], isolated, 12).allowed).toBe(true);
    expect(cutGate(all, ['key-off'], 12).sentence).toContain('earthed pole');
  });
  test('whatever is read, it may be cut only when nothing is missing and nothing is live', () => {
    const any = fc.array(
      fc.record({
        end: fc.constantFrom('a' as const, 'b' as const),
        state: fc.constantFrom(...KEY_STATES),
        lamp: fc.constantFrom('lit' as const, 'off' as const),
      }),
      { maxLength: 30 },
    );
    fc.assert(
      fc.property(any, fc.boolean(), (list, complete) => {
        const readings = [
          ...(complete ? all : []),
          ...list.map(({ end, state, lamp }, index) => reading(end, state, lamp, String(index))),
        ];
        const gate = cutGate(readings, isolated, 12);
        const latest = new Map(readings.map((one) => [`${one.end} ${one.state}`, one.value]));
        const lit = [...latest.values()].some((value) => 'lamp' in value && value.lamp === 'lit');
        expect(gate.allowed).toBe(latest.size === KEY_STATES.length * 2 && !lit);
      }),
    );
  });
});
