import { demoCircuit } from '../../testing/circuits';
import { testInLog } from '../diagnosis';
import type { EventBody } from '../format';
import { eventWords } from './kinds';
import { valueWords } from './names';

const circuit = demoCircuit('van-proving-cabinet');

const LINES: readonly (readonly [EventBody, string])[] = [
  [{ kind: 'complaint', words: 'Fan dead' }, 'Complaint: Fan dead'],
  [{ kind: 'identity', nominalVolts: 12, odometerKm: 5 }, 'nominal voltage 12 V, odometer 5 km'],
  [
    { kind: 'function-check', function: 'cabinet-fan', condition: 'fan-on', state: 'on-when-off' },
    'Proving-cabinet fan: on when it should be off (Key on, cabinet switch on)',
  ],
  [
    {
      kind: 'reading',
      test: { kind: 'volts', node: 'f31-out', against: 'bat-minus', condition: 'fan-on' },
      value: { volts: 0.0055 },
      raw: '5,5m',
      testerProved: true,
    },
    'Volts at load side of fuse 31 and relay 4 pin 30: 5.5 mV',
  ],
  [{ kind: 'tester-proved', on: 'battery posts' }, 'Tester proved on battery posts'],
  [
    {
      kind: 'test-refused',
      test: { kind: 'continuity', part: 'R4', from: '86', to: '85' },
      reason: 'cannot reach that',
    },
    'Not done: Relay 4, cabinet fan, out of the circuit (cannot reach that)',
  ],
  [
    { kind: 'repair', words: 'Link fitted', partsUsed: [], minutes: 3, temporary: true, due: '2026-12-01' },
    'Repair: Link fitted (temporary)',
  ],
  [{ kind: 'task-begun', task: 'cut-or-solder', wire: 'W32' }, 'Begun: cut or solder, wire W32'],
  [
    { kind: 'task-begun', task: 'lift-box', panel: 'cab', override: 'no spanner' },
    'Begun: lift the box, not isolated (no spanner)',
  ],
  [
    { kind: 'task-begun', task: 'bridge', part: 'R4', override: 'marked on the socket' },
    'Begun: bridge Relay 4, cabinet fan, its feed not read first (marked on the socket)',
  ],
  [{ kind: 'watch', words: 'Look again', due: '2026-12-01' }, 'Watch: Look again, due 1 Dec 2026'],
  [
    { kind: 'state', state: 'closed', override: 'customer in a hurry' },
    'Job closed although something was missing: customer in a hurry',
  ],
];

test.each(LINES)('%j reads as one line', (body, line) => {
  expect(eventWords(circuit, body)).toBe(line);
});

test('without the circuit the ids stand in for the names', () => {
  expect(testInLog(null, { kind: 'lamp', node: 'x9', condition: 'on' })).toBe('Test lamp at x9');
  expect(
    testInLog(circuit, { kind: 'lamp-in-fuse', part: 'F31', condition: 'fan-on', unplugged: 'C12' }),
  ).toBe('Lamp in place of Fuse 31 (15 A), Plug C12 cavity 3 unplugged');
});

test('values carry their units', () => {
  expect(
    [{ volts: 12.4 }, { ohms: 0.3 }, { overLimit: true as const }, { lamp: 'dim' as const }].map(valueWords),
  ).toEqual(['12.40 V', '0.30 Ω', 'over limit', 'dim']);
});
