import { functionRuns } from '../diagnosis/run';
import { CircuitModel } from '../network';
import { circuitOfPattern, PATTERNS } from '../notation';
import { runStrip } from './strip';
import { symbolOf } from './symbols';

describe.each(PATTERNS.map((pattern) => [pattern.id, pattern] as const))('%s', (_id, pattern) => {
  const { circuit, condition } = circuitOfPattern(pattern, { load: 'Load', kind: 'motor', nominalVolts: 12 });
  const [run] = functionRuns(new CircuitModel(circuit), 'failed', condition);
  const parts = run!.stations.map(({ part }) => part);
  const strip = runStrip(circuit, { stops: run!.stops, parts });

  test('every part of the run that is no mere wire lies in it, in its order, beside its neighbours', () => {
    const wanted = parts.filter((id) => {
      const kind = circuit.parts.find((one) => one.id === id)!.kind;
      return kind !== 'wire' && kind !== 'splice';
    });
    expect(strip.parts.map(({ part }) => part)).toEqual(wanted);
    expect(wanted.length).toBeGreaterThan(2);
    const lengths = wanted.map((id) => symbolOf(circuit.parts.find((one) => one.id === id)!).height);
    expect(strip.width).toBeCloseTo(lengths.reduce((sum, one) => sum + one, 0) + 8 * (wanted.length - 1), 6);
  });

  test('its letters lie within its picture', () => {
    for (const { letters } of strip.parts) {
      for (const { x, y } of letters) {
        expect(x).toBeGreaterThanOrEqual(0);
        expect(x).toBeLessThanOrEqual(strip.width);
        expect(y).toBeGreaterThanOrEqual(strip.top - 12);
        expect(y).toBeLessThanOrEqual(strip.bottom + 12);
      }
    }
  });
});
