import fc from 'fast-check';
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { functionChances, lampChances, normalBelow, voltmeterError } from '../limits/instruments';
import { CircuitModel } from '../network/model';
import { testCardWords } from './card';
import { refOfId, setUpOf, spotOf, testId } from './kinds';
import { DiagnosisSession } from './session';
import { conditionSettings, settingsToMake } from './settings';
import { candidateTests } from './tests';

describe('the tests of a circuit', () => {
  test.each(DEMO_CIRCUITS)('%s: ids differ, name their test, and every card can be read', (name) => {
    const model = new CircuitModel(demoCircuit(name));
    const { circuit } = model;
    const one = circuit.functions[0]!;
    const condition = circuit.conditions.find((entry) => model.expectedOn(one, entry.id))!;
    const tests = candidateTests(model, { function: one.id, condition: condition.id });
    expect(new Set(tests.map((test) => test.id)).size).toBe(tests.length);
    for (const { id, ref, accesses } of tests) {
      expect(testId(refOfId(id))).toBe(id);
      expect(accesses.every((access) => access.minutes > 0)).toBe(true);
      const words = testCardWords(circuit, ref, accesses[0]!.place, accesses[0]!.lead);
      expect(words.title.length).toBeGreaterThan(8);
      expect(words.settings.length).toBeGreaterThan(0);
      expect(words.steps.every((step) => step.endsWith('.') || step.endsWith('?'))).toBe(true);
      // What pulls or loads something says what to beware of.
      if (ref.kind === 'lamp' || ref.kind === 'continuity' || ref.kind === 'lamp-in-fuse') {
        expect(words.cautions.length).toBeGreaterThan(0);
      }
    }
  });

  test('parts that are safety-critical or fixed are not pulled, lit or swapped', () => {
    const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
    Object.assign(circuit.parts.find((part) => part.id === 'F31')!, { safetyCritical: true });
    Object.assign(circuit.parts.find((part) => part.id === 'R4')!, { fixed: true });
    const ids = candidateTests(new CircuitModel(circuit), {
      function: 'cabinet-fan',
      condition: 'fan-on',
    }).map((test) => test.id);
    expect(ids.some((id) => id.startsWith('lamp-in-fuse|F31'))).toBe(false);
    expect(ids.some((id) => id.startsWith('substitute|F31'))).toBe(false);
    // Feeling for its click, or moving it, harms nothing.
    expect(ids.filter((id) => id.includes('|R4|')).every((id) => /^(click|wiggle)/.test(id))).toBe(true);
    expect(ids.some((id) => id.startsWith('lamp-in-fuse|F33'))).toBe(true);
  });

  test('behind a fuse lies what hangs on it, not what else is earthed where its load is', () => {
    const offered = (safety: string) => {
      const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
      Object.assign(circuit.parts.find((part) => part.id === safety)!, { safetyCritical: true });
      const asked = { function: 'cabinet-fan', condition: 'fan-on' };
      return candidateTests(new CircuitModel(circuit), asked).map((test) => test.id);
    };
    // F33 feeds the coil alone; fan and lights share its earth. F31 feeds the fan by way of the contact.
    const besideTheLights = offered('L1');
    const apart = (fuse: string) =>
      besideTheLights.filter((id) => id.includes(`|${fuse}|`) && id.includes('M1'));
    expect(apart('F33')).toEqual([]);
    expect(apart('F31').length).toBeGreaterThan(0);
    for (const fuse of ['F33', 'F31'])
      expect(besideTheLights.some((id) => id.startsWith(`lamp-in-fuse|${fuse}`))).toBe(true);
    const beforeTheFan = offered('M1');
    // Its own feed, and the feed of the coil that holds it.
    for (const fuse of ['F33', 'F31'])
      expect(beforeTheFan.some((id) => id.startsWith(`lamp-in-fuse|${fuse}`))).toBe(false);
  });

  test('two readings at one point share the spot; two points in one condition share the set-up', () => {
    const volts = (node: string, condition: string) => ({
      kind: 'volts' as const,
      node,
      against: 'e',
      condition,
    });
    expect(spotOf(volts('a', 'x'))).toBe(spotOf({ kind: 'lamp', node: 'a', condition: 'y' }));
    expect(setUpOf(volts('a', 'x'))).toBe(setUpOf(volts('b', 'x')));
    expect(setUpOf(volts('a', 'x'))).not.toBe(setUpOf(volts('a', 'y')));
  });

  test('settings name the key and every switch that is not at rest', () => {
    expect(conditionSettings(demoCircuit('van-proving-cabinet'), 'fan-lights-on')).toEqual([
      { sign: 'key', words: 'Key: run' },
      { sign: 'switch', words: 'Cabinet fan switch: on' },
      { sign: 'switch', words: 'Shelf-light switch: on' },
    ]);
  });

  test('what has to be set anew is what differs from how key and switches stand', () => {
    const circuit = demoCircuit('van-proving-cabinet');
    const settings = conditionSettings(circuit, 'fan-lights-on');
    const [before, at] = circuit.conditions.filter(({ id }) => id !== 'fan-lights-on');
    expect(settingsToMake(settings, circuit, 'fan-lights-on')).toEqual(new Set());
    expect([...settingsToMake(settings, circuit, null)]).toHaveLength(3);
    for (const other of [before!, at!]) {
      const already = conditionSettings(circuit, other.id).map(({ words }) => words);
      const anew = settingsToMake(settings, circuit, other.id);
      expect(settings.every(({ words }) => anew.has(words) !== already.includes(words))).toBe(true);
    }
  });

  test('a test that a person chooses has a card with its meaning, and an unknown one has none', () => {
    const session = new DiagnosisSession(demoCircuit('trailer-lamps'), {
      function: 'left-marker',
      condition: 'side-on',
    });
    const nothing = { readings: [], refused: [], opened: [] };
    const card = session.card('volts|left-plus|tow-minus|side-on', nothing);
    expect(card?.expected).toMatch(/about 12\.\d/);
    expect(card?.minutes).toBeCloseTo(0.7 + 1.5, 6);
    expect(session.card('volts|nowhere|tow-minus|side-on', nothing)).toBeNull();
  });
});

describe('instruments', () => {
  test('chances of what the eye says sum to one and turn over at the limits', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1.5, noNaN: true }), (fraction) => {
        for (const chances of [lampChances(fraction), functionChances(fraction, 0.8, 0.25)]) {
          expect(chances.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 6);
          expect(chances.every((one) => one >= 0)).toBe(true);
        }
      }),
    );
    expect(lampChances(1)[0]).toBeGreaterThan(0.99);
    expect(lampChances(0.5)[1]).toBeGreaterThan(0.99);
    expect(lampChances(0)[2]).toBeGreaterThan(0.99);
    expect(functionChances(0.8, 0.8, 0.25)[0]).toBeCloseTo(0.5, 2);
  });

  test('the normal distribution at tabled places', () => {
    for (const [x, below] of [
      [0, 0.5],
      [1, 0.841345],
      [-1.96, 0.024998],
      [3, 0.99865],
    ] as const) {
      expect(normalBelow(x)).toBeCloseTo(below, 5);
    }
  });

  test('a meter is off by two digits at nothing and by half a percent more at twelve volts', () => {
    expect(voltmeterError(0)).toBeCloseTo(0.02, 9);
    expect(voltmeterError(-12)).toBeCloseTo(0.08, 9);
  });
});

describe('names do not matter', () => {
  test('renaming every part and node leaves the chances as they were', () => {
    const circuit = demoCircuit('trailer-lamps');
    const text = JSON.stringify(circuit);
    const ids = [...circuit.parts.map((part) => part.id), ...circuit.nodes.map((node) => node.id)];
    const renamed = ids.reduce((so, id) => so.replaceAll(`"${id}"`, `"q-${id}"`), text);
    const chancesOf = (source: string, prefix: string) => {
      const session = new DiagnosisSession(JSON.parse(source), {
        function: 'left-marker',
        condition: 'side-on',
      });
      const readings = [
        {
          id: 'r',
          test: {
            kind: 'volts' as const,
            node: `${prefix}left-plus`,
            against: `${prefix}tow-minus`,
            condition: 'side-on',
          },
          value: { volts: 3.1 },
        },
      ];
      return session.assess({ readings, refused: [], opened: [] }).suspects.map((one) => one.chance);
    };
    const before = chancesOf(text, '');
    chancesOf(renamed, 'q-').forEach((chance, index) => {
      expect(chance).toBeCloseTo(before[index]!, 9);
    });
  });
});
