/** What is said on one screen agrees with itself, whatever was read on whatever circuit. */
import fc from 'fast-check';
import { demoCircuit } from '../../testing/circuits';
import { so } from '../../testing/whole';
import { breakCircuit, faultsOfPart } from '../faults';
import type { CircuitFile } from '../format';
import { CircuitModel } from '../network';
import { circuitOfPattern, PATTERNS } from '../notation/patterns';
import type { Assessment } from './assessment';
import type { TakenReading } from './evidence/readings';
import { complaintOf, readingOf } from './playback';
import { DiagnosisSession } from './session';

const CIRCUITS: readonly CircuitFile[] = [
  demoCircuit('van-proving-cabinet'),
  demoCircuit('trailer-lamps'),
  ...PATTERNS.map(
    (pattern, index) =>
      circuitOfPattern(pattern, { load: 'Step lamp', kind: 'lamp', nominalVolts: index % 3 === 2 ? 24 : 12 })
        .circuit,
  ),
];
const models = CIRCUITS.map((circuit) => new CircuitModel(circuit));
const sessions = new Map<string, DiagnosisSession>();

function sessionFor(index: number, complaint: { function: string; condition: string }): DiagnosisSession {
  const key = `${index} ${complaint.function} ${complaint.condition}`;
  const known = sessions.get(key) ?? new DiagnosisSession(CIRCUITS[index]!, complaint);
  sessions.set(key, known);
  return known;
}

/** Chance that a part is at fault, by itself or with another. */
function chanceOfPart(assessment: Assessment, part: string): number {
  return assessment.parts.find((one) => one.part === part)?.chance ?? 0;
}

/** One in eight readings is taken at the wrong spot: it shows nothing. */
const SLIP = 8;
const WORTH_A_WORD = 0.05;

const somePlay = fc.record({
  circuit: fc.nat(CIRCUITS.length - 1),
  fault: fc.nat(10_000),
  steps: fc.array(fc.record({ pick: fc.nat(10_000), slips: fc.nat(SLIP - 1) }), {
    minLength: 1,
    maxLength: 7,
  }),
});

test('cleared, good, speaks for and against: all by the same chances', () => {
  let looked = 0;
  let goods = 0;
  fc.assert(
    fc.property(somePlay, ({ circuit: index, fault: number, steps }) => {
      const model = models[index]!;
      const faults = model.circuit.parts.flatMap((part) => faultsOfPart(model, part));
      const broken = breakCircuit(model, [faults[number % faults.length]!]);
      const complaint = complaintOf(broken);
      if (!complaint) return;
      const session = sessionFor(index, { function: complaint.function, condition: complaint.condition });
      const state = complaint.state === 'works' ? ('on-when-off' as const) : complaint.state;
      const readings: TakenReading[] = [
        { id: 'c', test: { kind: 'function', ...complaint }, value: { state } } as TakenReading,
      ];
      let before = session.assess({ readings, refused: [], opened: [] });
      steps.forEach(({ pick, slips }, step) => {
        const { permitted } = session;
        // As proposed, at the pins of a relay, or wherever somebody happens to look.
        const pins = before.switched.flatMap(({ rows }) => rows.flatMap(({ test: pin }) => pin ?? []));
        const anywhere = permitted[pick % permitted.length]!.ref;
        const ref =
          [before.next[0]?.ref, pins[pick % Math.max(1, pins.length)], anywhere][pick % 3] ?? anywhere;
        const value = readingOf(broken, ref);
        const read = slips === 0 && 'volts' in value ? { volts: 0 } : value;
        readings.push({ id: `r${step}`, test: ref, value: read });
        const now = session.assess({ readings, refused: [], opened: [] });
        const { sentence, clears } = now.effects.at(-1)!;
        looked += 1;
        for (const effect of now.effects) {
          for (const part of effect.clears) {
            expect({ part, chance: chanceOfPart(now, part) < WORTH_A_WORD }).toEqual({ part, chance: true });
          }
        }
        for (const one of now.parts) {
          if (one.standing === 'cleared') expect(one.chance).toBeLessThan(WORTH_A_WORD);
        }
        const leading = new Set(now.suspects[0]!.parts);
        for (const { part, rows } of now.switched) {
          for (const row of rows.filter((each) => each.standing === 'good')) {
            goods += 1;
            const relay = model.network.parts.get(part)!;
            const ofContact = now.suspects[0]!.forms.some(
              ({ fault }) => fault?.part === part && fault.mode.startsWith('contact'),
            );
            if (row.role === 'output' && leading.has(part)) {
              expect({ relay: relay.name, sentence: row.sentence, ofContact }).toEqual({
                relay: relay.name,
                sentence: row.sentence,
                ofContact: false,
              });
            }
          }
        }
        // What moved a tenth or more is named, unless nothing but what fell below a word moved.
        const moved = now.suspects
          .map((one) => ({ one, was: before.suspects.find(({ id }) => id === one.id)?.chance ?? 0 }))
          .filter(
            ({ one, was }) => one.units.length === 1 && one.parts.length === 1 && one.chance - was >= 0.15,
          );
        if (moved.length > 0) {
          const names = [
            ...moved.map(({ one }) => one.title),
            ...clears.map((part) => model.network.parts.get(part)!.name),
          ];
          expect({
            sentence,
            names,
            named: names.some((name) => sentence.includes(name)),
          }).toEqual({ sentence, names, named: true });
        }
        before = now;
      });
    }),
    { numRuns: so(400, 25) },
  );
  expect(looked).toBeGreaterThan(so(1000, 50));
  // Short runs may read no pin that its load proves.
  expect(goods).toBeGreaterThanOrEqual(so(10, 0));
});
