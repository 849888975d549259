/** What is kept of a diagnosis says the same as what is worked out, and is taken over only where it belongs. */
import { demoCircuit } from '../../../testing/circuits';

import type { SessionOptions } from '../assessment';
import { DiagnosisSession } from '../session';
import { type KeptPredictions, packPredictions, unpackPredictions } from './keptPredictions';

const van = demoCircuit('van-proving-cabinet');
const FAN = { function: 'cabinet-fan', condition: 'fan-on' };
const SHELF = { function: 'left-shelf-light', condition: 'lights-on' };

function sessionOn(complaint: typeof FAN, options: SessionOptions = {}): DiagnosisSession {
  const session = new DiagnosisSession(van, complaint, options);
  for (const _piece of session.prepare());
  return session;
}

/** Everything that a technician is told after two readings. */
function told(session: DiagnosisSession) {
  const { function: name, condition } = session.complaint;
  const dead = { kind: 'function' as const, function: name, condition };
  const first = { id: 'r1', test: dead, value: { state: 'dead' as const } };
  const before = session.assess({ readings: [first], refused: [], opened: [] });
  const volts = session.permitted.find(({ ref }) => ref.kind === 'volts' && ref.condition === condition)!;
  const second = { id: 'r2', test: volts.ref, value: { volts: 11.9 } };
  const after = session.assess({ readings: [first, second], refused: [], opened: [] });
  return { before, after, groups: session.groups([]).groups };
}

const fresh = sessionOn(FAN);
const kept = fresh.toKeep()!;
const packed = packPredictions(kept);

test('the same complaint again: nothing is worked out, and every sentence and figure is the same', () => {
  const again = sessionOn(FAN, { kept: [unpackPredictions(packed)!] });
  expect(again.toKeep()).toBeNull();
  expect(told(again)).toEqual(told(fresh));
});

test('other weights and other hands need nothing anew either, and say what they would have said', () => {
  const options: SessionOptions = { hand: { lampVolts: [12], without: ['clamp'], habits: {} } as never };
  const again = sessionOn(FAN, { ...options, kept: [kept] });
  expect(again.toKeep()).toBeNull();
  expect(told(again)).toEqual(told(sessionOn(FAN, options)));
});

test('another complaint takes over the faults that it shares, and says what it would have said', () => {
  const plain = sessionOn(SHELF);
  const shared = plain.hypotheses.filter(({ id }) => kept.rows.includes(id)).length;
  expect(shared).toBeGreaterThan(2);
  expect(shared).toBeLessThan(plain.hypotheses.length);
  const other = sessionOn(SHELF, { kept: [kept] });
  expect(told(other)).toEqual(told(plain));
  // What it worked out beside that is kept whole: the next one needs neither.
  const both = sessionOn(SHELF, { kept: [unpackPredictions(packPredictions(other.toKeep()!))!] });
  expect(both.toKeep()).toBeNull();
  expect(told(both)).toEqual(told(plain));
});

test('shared out among three, with one share that never comes: every sentence and figure is the same', () => {
  const shared = new DiagnosisSession(van, FAN);
  const ids = shared.missing();
  expect(ids.length).toBeGreaterThan(30);
  for (const part of [0, 1, 2]) {
    const worker = part === 0 ? shared : new DiagnosisSession(van, FAN);
    const working = worker.share(ids.filter((_, at) => at % 3 === part));
    let step = working.next();
    while (!step.done) step = working.next();
    if (part < 2) shared.take(unpackPredictions(packPredictions(step.value))!);
  }
  expect(shared.missing().length).toBe(ids.filter((_, at) => at % 3 === 2).length);
  expect(told(shared)).toEqual(told(fresh));
  // And what is kept of it is the whole.
  const again = sessionOn(FAN, { kept: [shared.toKeep()!] });
  expect(again.toKeep()).toBeNull();
  expect(told(again)).toEqual(told(fresh));
});

test('kept of a few tests only, the others are worked out', () => {
  const some = new Map([...kept.tests].filter((_, at) => at % 3 === 0));
  const partly = sessionOn(FAN, { kept: [{ ...kept, tests: some, groups: undefined }] });
  expect(partly.toKeep()?.tests.size).toBe(kept.tests.size);
  expect(told(partly)).toEqual(told(fresh));
});

test('groups are taken over only where the same tests tell them apart', () => {
  const [first] = fresh.groups([]).groups;
  const wrong: KeptPredictions = {
    ...kept,
    groups: { tests: kept.groups!.tests.slice(1), groups: [first!] },
  };
  expect(told(sessionOn(FAN, { kept: [wrong] }))).toEqual(told(fresh));
});

test('what is cut short, of another form, or no such thing is not read', () => {
  expect(unpackPredictions(packed.subarray(0, packed.length - 8))).toBeNull();
  expect(unpackPredictions(packed.subarray(0, 40))).toBeNull();
  expect(unpackPredictions(new Uint8Array(3))).toBeNull();
  expect(unpackPredictions(new TextEncoder().encode('{"rows":[]}'))).toBeNull();
  const other = new TextDecoder().decode(packed.subarray(4, 20)).replace('"packed":1', '"packed":9');
  const changed = packed.slice();
  changed.set(new TextEncoder().encode(other), 4);
  expect(unpackPredictions(changed)).toBeNull();
});
