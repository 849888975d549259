/** What is on when it should be off, played to its end on every pattern, without exchanging anything. */

import { breakCircuit } from '../faults/broken';
import { CircuitModel } from '../network/model';
import { circuitOfPattern, PATTERNS } from '../notation/patterns';
import { endsRight, leadToEnd } from './followEngine';
import { readingOf } from './playback';
import { DiagnosisSession } from './session';

test.each(PATTERNS.map((pattern) => [pattern.name, pattern] as const))(
  '%s: every fault that leaves it on is found, none is proved wrongly, nothing is exchanged',
  (_name, pattern) => {
    const made = circuitOfPattern(pattern, { load: 'Step light', kind: 'lamp', nominalVolts: 12 });
    const model = new CircuitModel(made.circuit);
    const of = model.function(made.function);
    const complaint = { function: made.function, condition: made.restCondition };
    expect(model.expectedOn(of, complaint.condition)).toBe(false);
    const session = new DiagnosisSession(made.circuit, complaint);
    const barred = new Set(session.barred.map((one) => one.id));
    for (const { reasons } of session.barred) expect(reasons.length).toBeGreaterThan(0);
    let played = 0;
    for (const { faults, intermittent, second, words } of session.hypotheses) {
      const [fault] = faults;
      if (!fault || intermittent || second) continue;
      const broken = breakCircuit(model, [fault]);
      if (model.outcome(of, model.solve(complaint.condition, broken.alteration)) === 'dead') continue;
      played += 1;
      const end = leadToEnd(session, { ...complaint, state: 'on-when-off' }, (ref) => readingOf(broken, ref));
      expect({ words, right: endsRight(end.assessment, fault, broken.blown.length > 0) }).toEqual({
        words,
        right: true,
      });
      for (const line of end.trail) {
        const [id = ''] = line.split(' = ');
        expect(barred.has(id)).toBe(false);
        expect(id).not.toMatch(/^(substitute|bridge|apply|elsewhere)\b/);
      }
    }
    expect(played).toBeGreaterThan(1);
  },
);

test('behind the input of a unit, a reading moves with no resistance of a load that the unit would switch', () => {
  const pattern = PATTERNS.find((one) => one.id === 'module-output')!;
  const { circuit, restCondition: condition } = circuitOfPattern(pattern, {
    load: 'Step light',
    kind: 'lamp',
    nominalVolts: 12,
  });
  const session = new DiagnosisSession(circuit, { function: 'failed', condition });
  const ref = { kind: 'volts', node: 's1-out', against: circuit.reference, condition } as const;
  const branchOfLoad = session.model.network.branches.findIndex((one) => one.part === 'L1');
  session.hypotheses.forEach(({ faults, intermittent }, h) => {
    if (intermittent || faults.length !== 1 || faults[0]!.part !== 'W1') return;
    const felt = session.predictions.sensitivity(`volts|s1-out`, ref, h);
    expect(felt === null || !felt.index.includes(branchOfLoad)).toBe(true);
  });
});
