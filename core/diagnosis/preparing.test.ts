/** The first card, before everything is worked out: when there is one, and what it is worth. */
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import type { AssessmentInput, Proposal } from './assessment';
import { DiagnosisSession } from './session';

const NOTHING: AssessmentInput = { readings: [], refused: [], opened: [] };
const FAN = { function: 'cabinet-fan', condition: 'fan-on' };
const van = demoCircuit('van-proving-cabinet');
const perMinute = ({ gainBits, minutes }: Proposal) => gainBits / minutes;
const failing = ({ function: name, condition } = FAN): AssessmentInput => ({
  ...NOTHING,
  readings: [{ id: 'seen', test: { kind: 'function', function: name, condition }, value: { state: 'dead' } }],
});

function early(complaint = FAN, circuit = van): DiagnosisSession {
  const session = new DiagnosisSession(circuit, complaint);
  for (const _piece of session.prepareFirst());
  return session;
}

test.each(DEMO_CIRCUITS)(
  '%s: it is as good a use of a minute as the best of all tests, within 0.02 bits',
  (name) => {
    const circuit = demoCircuit(name);
    let looked = 0;
    // All of them, on more circuits: `npm run experiment -- first`.
    for (const { id } of circuit.functions.slice(0, 2)) {
      for (const condition of circuit.conditions) {
        const complaint = { function: id, condition: condition.id };
        const session = early(complaint, circuit);
        // What runs unbidden waits for everything.
        const wanted = session.model.expectedOn(session.model.function(id), condition.id);
        expect(session.firstCard(NOTHING) !== null).toBe(wanted);
        if (!wanted) continue;
        for (const input of [NOTHING, failing(complaint)]) {
          const first = session.firstCard(input)!;
          const best = session.assess(input).next[0]!;
          looked += 1;
          expect(perMinute(best) - perMinute(session.card(first.id, input)!)).toBeLessThan(0.02);
        }
      }
    }
    expect(looked).toBeGreaterThan(3);
  },
);

test('there is none before its tests are worked out, nor where more is known than that the function fails', () => {
  expect(new DiagnosisSession(van, FAN).firstCard(NOTHING)).toBeNull();
  const session = early();
  expect(session.firstCard(NOTHING)).not.toBeNull();
  expect(session.firstCard(failing())).not.toBeNull();
  const [first] = session.permitted.filter(({ ref }) => ref.kind === 'volts');
  const read = { id: 'volts', test: first!.ref, value: { volts: 12.4 } };
  expect(session.firstCard({ ...NOTHING, readings: [read] })).toBeNull();
  const light = failing({ function: 'left-shelf-light', condition: 'lights-on' });
  expect(session.firstCard(light)).toBeNull();
});

test('what is refused is no first card, and what it says is what everything says afterwards', () => {
  const session = early();
  const first = session.firstCard(NOTHING)!;
  expect(session.firstCard({ ...NOTHING, refused: [first.id] })?.id).not.toBe(first.id);
  const told = session.assess(NOTHING);
  expect(told).toEqual(new DiagnosisSession(van, FAN).assess(NOTHING));
});

test('gone through twice, nothing is worked out or counted twice', () => {
  const session = early();
  const steps = [...session.prepare()].length;
  expect(steps).toBeGreaterThan(100);
  expect([...session.prepare()].length).toBe(0);
  const { tests } = session.toKeep()!.groups!;
  expect(new Set(tests).size).toBe(tests.length);
});
