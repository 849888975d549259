/** A supply at any level is found as what it is, and clears no battery. */
import fc from 'fast-check';
import { circuitOf, fuse, lamp, wire } from '../../testing/circuits';
import { breakCircuit, burns, faultAlteration, faultsOfPart } from '../faults';
import type { CircuitFile, CircuitPart } from '../format';
import { CircuitModel } from '../network';
import { leadToEnd } from './followEngine';
import { complaintOf, readingOf } from './playback';
import { DiagnosisSession } from './session';

/** Battery, link, two fuses of 10 A, a lamp of 2.4 ohm behind each, an earth strap of 5 milliohm. */
function twoLamps(battery: { emfVolts?: number; innerOhms?: number } = {}): CircuitFile {
  const cell: CircuitPart = {
    id: 'B',
    kind: 'battery',
    name: 'Battery',
    pins: { plus: 'plus', minus: 'minus' },
    emfVolts: 12.6,
    innerOhms: 0.012,
    ...battery,
  };
  return circuitOf({
    parts: [
      cell,
      wire('WB', 'plus', 'bus', 0.005),
      fuse('F1', 'bus', 'f1', 10),
      fuse('F2', 'bus', 'f2', 10),
      wire('W1', 'f1', 'l1', 0.05),
      wire('W2', 'f2', 'l2', 0.05),
      lamp('L1', 'l1', 'metal', 2.4),
      lamp('L2', 'l2', 'metal', 2.4),
      { id: 'G', kind: 'ground', name: 'Strap', pins: { lug: 'metal', body: 'minus' }, ohms: 0.005 },
    ],
    functions: [
      { id: 'one', name: 'First lamp', load: 'L1' },
      { id: 'two', name: 'Second lamp', load: 'L2' },
    ],
  });
}

const map = twoLamps();
const model = new CircuitModel(map);

test('every level and inner resistance of a battery is a fault; what it leaves follows by Ohm’s law', () => {
  const battery = map.parts[0]!;
  const faults = faultsOfPart(model, battery);
  const levels = faults.flatMap(({ volts }) => volts ?? []);
  expect(Math.max(...levels)).toBeGreaterThan(11);
  expect(Math.min(...levels)).toBeLessThan(2.5);
  // 12.6 V through 1 ohm more inside and two lamps of 2.4 in parallel: 12.6 / (1 + 1.2 + what joins them).
  const weak = faultAlteration(model.network, { part: 'B', mode: 'weak', ohms: 1 });
  const point = model.solve('on', weak);
  const joined = 0.012 + 0.005 + 0.005 + (2.4 + 0.05 + 0.01) / 2;
  const amps = 12.6 / (1 + joined);
  const post = 12.6 - amps * 1.012;
  expect(point.volts[model.network.nodeIndex.get('plus')!]).toBeCloseTo(post, 2);
});

test('a dead short that no fuse ends is no state that anybody meets', () => {
  const short = (part: string) => faultAlteration(model.network, { part, mode: 'short-to-earth' });
  // Hundreds of amperes from the post; behind a fuse it opens, and is met with the fuse open.
  expect(burns(model, short('WB'))).toBe(true);
  const session = new DiagnosisSession(map, { function: 'one', condition: 'on' });
  const ids = session.hypotheses.map((one) => one.id);
  expect(ids).not.toContain('WB:short-to-earth');
  expect(ids).toContain('W1:short-to-earth');
  for (const { faults, alteration } of session.hypotheses) {
    if (alteration && faults.some(({ mode }) => mode.startsWith('short'))) {
      expect([faults[0], burns(model, alteration)]).toEqual([faults[0], false]);
    }
  }
});

test('a supply anywhere between a tenth and the whole of its volts ends at the battery, which was never cleared', () => {
  let played = 0;
  fc.assert(
    fc.property(
      fc.double({ min: 0.1, max: 0.72, noNaN: true }),
      fc.double({ min: 0.012, max: 0.1, noNaN: true }),
      (share, innerOhms) => {
        const broken = breakCircuit(new CircuitModel(twoLamps({ emfVolts: 12.6 * share, innerOhms })), []);
        const seen = { function: 'one', condition: 'on', state: share < 0.45 ? 'dead' : 'weak' } as const;
        const session = new DiagnosisSession(map, seen);
        const standings: string[] = [];
        const watched: DiagnosisSession = Object.create(session);
        watched.assess = (input) => {
          const assessment = session.assess(input);
          standings.push(assessment.parts.find(({ part }) => part === 'B')?.standing ?? 'gone');
          return assessment;
        };
        const { assessment } = leadToEnd(watched, seen, (ref) => readingOf(broken, ref));
        expect([share, assessment.suspects[0]?.parts]).toEqual([share, ['B']]);
        expect(standings).not.toContain('cleared');
        played += 1;
      },
    ),
    { numRuns: 12 },
  );
  expect(played).toBe(12);
});

test('what resists inside is found too, though it rests at its usual volts', () => {
  const broken = breakCircuit(new CircuitModel(twoLamps({ innerOhms: 0.9 })), []);
  const complaint = complaintOf(breakCircuit(model, [{ part: 'B', mode: 'weak', ohms: 0.9 }]))!;
  const session = new DiagnosisSession(map, complaint);
  const { assessment, trail } = leadToEnd(session, complaint, (ref) => readingOf(broken, ref));
  expect([assessment.suspects[0]?.parts, trail]).toEqual([['B'], trail]);
  expect(assessment.suspects[0]?.forms[0]?.words).toMatch(/^Battery: weak \(about [\d.]+ m?Ω inside\)$/);
});
