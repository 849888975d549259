/** A pattern on a vehicle that has circuits already. */
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { CircuitModel } from '../network/model';
import { circuitOfPattern, PATTERNS } from '../notation/patterns';
import { checkCircuit } from './checkCircuit';
import { fitCircuit } from './fit';
import { mergeCircuits } from './merge';

const van = DEMO_CIRCUITS.filter((name) => name.startsWith('van')).map(demoCircuit);

test.each(PATTERNS.map((pattern) => [pattern.id, pattern] as const))(
  '%s joins a mapped vehicle, and a vehicle that has the same pattern already',
  (_id, pattern) => {
    const input = { load: 'Step lamp', kind: 'lamp', nominalVolts: 12 } as const;
    const made = circuitOfPattern(pattern, input);
    for (const existing of [van, [made.circuit], [made.circuit, fitCircuit(made.circuit, [made.circuit])]]) {
      const fitted = fitCircuit(made.circuit, existing);
      expect(checkCircuit(fitted)).toMatchObject({ ok: true });
      const { circuit, problems } = mergeCircuits([...existing, fitted]);
      expect(problems).toEqual([]);
      expect(checkCircuit({ ...circuit, id: 'together' })).toMatchObject({ ok: true });
      // Alone and together with the others it works where it should.
      const condition = made.circuit.conditions.findIndex((one) => one.id === made.condition);
      for (const file of [fitted, circuit]) {
        const model = new CircuitModel(file);
        const failed = file.functions.find((one) => one.id === fitted.functions[0]!.id)!;
        expect(failed.name).toBe('Step lamp');
        expect(model.outcome(failed, model.sound(fitted.conditions[condition]!.id))).toBe('works');
      }
    }
  },
);

test('a vehicle without circuits takes it as it is', () => {
  const { circuit } = circuitOfPattern(PATTERNS[0]!, { load: 'Fan', kind: 'motor', nominalVolts: 24 });
  expect(fitCircuit(circuit, [])).toBe(circuit);
});
