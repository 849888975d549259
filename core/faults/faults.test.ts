import { BATTERY, circuitOf, demoCircuit, fuse, lamp, ON, wire } from '../../testing/circuits';
import { fuseColdOhms, wireOhms } from '../limits/defaults';
import { UNALTERED } from '../network/alteration';
import { CircuitModel } from '../network/model';
import { faultAlteration, faultBranches, faultModes, faultWords, parseFault } from './faults';
import { openOverloaded, overloads } from './overload';

describe('typical values', () => {
  test('stand as tabled, and between as a straight line on log paper', () => {
    expect(fuseColdOhms(10)).toBeCloseTo(0.0076, 9);
    expect(fuseColdOhms(30)).toBeCloseTo(0.002, 9);
    expect(fuseColdOhms(12)).toBeGreaterThan(fuseColdOhms(15));
    expect(fuseColdOhms(12)).toBeLessThan(fuseColdOhms(10));
    expect(wireOhms(1, 1.5)).toBeCloseTo(0.0127, 9);
    expect(wireOhms(3, 2.5)).toBeCloseTo(0.0228, 9);
    // Beyond the table half the copper has twice the resistance.
    expect(wireOhms(1, 100)).toBeCloseTo(0.000184, 9);
  });
});

describe('faults', () => {
  const van = new CircuitModel(demoCircuit('van-demist'));

  test('every part of a vehicle can have each of its faults, and each has a name', () => {
    for (const part of van.circuit.parts) {
      for (const mode of faultModes(part)) {
        const fault = { part: part.id, mode, ohms: 1 };
        expect(faultBranches(van.network, fault).length).toBeGreaterThan(0);
        const { changes, bridges, ratings = [] } = faultAlteration(van.network, fault);
        expect(changes.length + bridges.length + ratings.length).toBeGreaterThan(0);
        expect(faultWords(part, fault).length).toBeGreaterThan(3);
      }
    }
  });

  test('what a part cannot have is refused in words', () => {
    expect(() => faultAlteration(van.network, { part: 'F14', mode: 'coil-open' })).toThrow(
      'A fuse cannot be coil-open; it can be open, high-resistance, not-fitted, wrong-rating.',
    );
    expect(() => faultAlteration(van.network, { part: 'F99', mode: 'open' })).toThrow('no part F99');
  });

  test('a relay stuck closed heats the mirrors with the key on and the switch off', () => {
    const stuck = faultAlteration(van.network, { part: 'R2', mode: 'contact-stuck' });
    const left = van.function('left-mirror');
    expect(van.outcome(left, van.solve('all-off', UNALTERED))).toBe('dead');
    expect(van.outcome(left, van.solve('all-off', stuck))).toBe('works');
  });

  test('a weak battery weakens everything', () => {
    const weak = faultAlteration(van.network, { part: 'B1', mode: 'weak' });
    expect(van.outcome(van.function('rear-screen'), van.solve('demist-on', weak))).not.toBe('works');
  });

  test.each([
    ['F31:open', { part: 'F31', mode: 'open' }],
    ['G4:high-resistance:0.8', { part: 'G4', mode: 'high-resistance', ohms: 0.8 }],
  ])('%s is read', (text, fault) => {
    expect(parseFault(text)).toEqual(fault);
  });

  test.each([
    'F31',
    'F31:',
    ':open',
    'F31:gone',
    'G4:high-resistance:-1',
    'G4:high-resistance:x',
    'a:open:1:2',
  ])('%s is refused in words', (text) => {
    const refused = parseFault(text);
    expect('error' in refused && refused.error.endsWith('.')).toBe(true);
  });
});

describe('overloaded fuses', () => {
  const model = (ohms: number) =>
    new CircuitModel(
      circuitOf({
        parts: [
          BATTERY,
          fuse('F1', 'plus', 'a', 30),
          fuse('F2', 'a', 'b', 10),
          wire('W', 'b', 'c', 0.01),
          lamp('L', 'c', 'minus', ohms),
        ],
      }),
    );

  test('hold at their rating and shortly above it, and open from 135 %', () => {
    // 12.6 / (0.1 + 0.02 + 0.01 + R): 12 A at 0.92 ohm (120 %), 14 A at 0.77 ohm (140 %).
    const at = (ohms: number) => overloads(model(ohms).network, model(ohms).sound(ON.id));
    expect(at(0.92)).toEqual([]);
    expect(at(0.77)).toMatchObject([{ part: 'F2', ratingAmps: 10 }]);
    expect(at(0.77)[0]?.amps).toBeCloseTo(14, 1);
  });

  test('a short opens the smaller fuse and spares the larger', () => {
    const circuit = model(6);
    const short = faultAlteration(circuit.network, { part: 'W', mode: 'short-to-earth' });
    const { opened, point } = openOverloaded(circuit, ON.id, short);
    expect(opened.map((one) => one.part)).toEqual(['F2']);
    expect(point.volts[circuit.network.nodeIndex.get('c')!]).toBeCloseTo(0, 6);
    expect(point.volts[circuit.network.nodeIndex.get('a')!]).toBeGreaterThan(12);
  });
});
