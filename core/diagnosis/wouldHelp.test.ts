/** A number is asked for only where it would change the next test. */
import { demoCircuit } from '../../testing/circuits';
import { circuitOfPattern, PATTERNS } from '../notation/patterns';
import { DiagnosisSession } from './session';
import { WhatWouldHelp } from './wouldHelp';

function asked(patternId: string, state: 'dead' | 'weak', watts?: number): string[] {
  const pattern = PATTERNS.find((one) => one.id === patternId)!;
  const made = circuitOfPattern(pattern, { load: 'Marker', kind: 'lamp', nominalVolts: 12 });
  const parts = made.circuit.parts.map((part) =>
    watts !== undefined && part.kind === 'lamp' ? { ...part, watts } : part,
  );
  const circuit = { ...made.circuit, parts };
  const complaint = { function: made.function, condition: made.condition };
  const input = {
    readings: [{ id: 'r1', test: { kind: 'function' as const, ...complaint }, value: { state } }],
    refused: [],
    opened: [],
  };
  const next = new DiagnosisSession(circuit, complaint).assess(input).next[0]?.id;
  const help = new WhatWouldHelp(circuit, complaint);
  for (const _piece of help.prepare());
  return help.parts(input, next);
}

test('a dead lamp behind fuse and switch: its power decides nothing, and is not asked', () => {
  expect(asked('fuse-switch-load', 'dead')).toEqual([]);
});

test('a dead lamp on a shared trailer earth: its power decides which test comes next', () => {
  expect(asked('trailer-plug', 'dead')).toContain('L1');
});

test('what is known is not asked again', () => {
  expect(asked('trailer-plug', 'weak', 5)).toEqual([]);
});

test('a mapped circuit has nothing to ask', () => {
  const circuit = demoCircuit('van-proving-cabinet');
  const help = new WhatWouldHelp(circuit, { function: 'cabinet-fan', condition: 'fan-on' });
  expect([...help.prepare()]).toEqual([]);
});
