/** A job of hundreds of readings: settled blocks say what all readings judged together say. */

import { demoCircuit } from '../../../testing/circuits';
import { breakCircuit } from '../../faults';
import { testId } from '../kinds';
import { readingOf } from '../playback';
import { DiagnosisSession } from '../session';
import { EvidenceState } from './evidence';
import type { TakenReading } from './readings';

const FAN = { function: 'cabinet-fan', condition: 'fan-on' };
const session = new DiagnosisSession(demoCircuit('van-proving-cabinet'), FAN);
const still = session.permitted.filter((test) => !test.disturbs);

/** Readings of one broken circuit; `often`: each test so many times, in the order of the names of the tests. */
function readingsOf(h: number, count: number, often = 1): TakenReading[] {
  const broken = breakCircuit(session.model, session.hypotheses[h]!.faults);
  const tests = still
    .slice(0, Math.ceil(count / often))
    .sort((a, b) => (testId(a.ref) < testId(b.ref) ? -1 : 1));
  return tests.flatMap(({ ref }) =>
    Array.from({ length: often }, (_, again) => ({
      id: `${testId(ref)} ${again}`,
      test: ref,
      value: readingOf(broken, ref),
    })),
  );
}

/** Log weights after readings in episodes of so many readings each. */
function weights(readings: readonly TakenReading[], block: number, perEpisode: number): Float64Array {
  const state = new EvidenceState(session.predictions, block);
  readings.forEach((reading, at) => {
    state.take(reading, { number: Math.floor(at / perEpisode), freed: null });
  });
  return state.logWeight;
}

test.each([
  ['one episode', 1000],
  ['episodes of 17 readings', 17],
  ['episodes of 5 readings', 5],
])('blocks change nothing: %s', (_, perEpisode) => {
  for (const h of [3, 20]) {
    const readings = readingsOf(h, 40);
    // Names in order within an episode: then there is one order, however long the blocks are.
    const whole = weights(readings, 10_000, perEpisode);
    for (const block of [1, 7]) {
      const got = weights(readings, block, perEpisode);
      for (const [at, weight] of whole.entries()) expect(got[at]).toBeCloseTo(weight, 5);
    }
  }
});

test('a part that is renewed in a late block is judged again from the first reading on', () => {
  const readings = readingsOf(20, 30);
  const [part] = session.hypotheses[20]!.parts;
  const after = (block: number) => {
    const state = new EvidenceState(session.predictions, block);
    readings.forEach((reading, at) => {
      if (at === 20) state.renew([part!]);
      state.take(reading, { number: at < 20 ? 0 : 1, freed: null });
    });
    return state.logWeight;
  };
  const whole = after(10_000);
  for (const [at, weight] of after(7).entries()) expect(weight).toBeCloseTo(whole[at]!, 5);
});

test('a hundred readings of a broken circuit name its fault', () => {
  const h = session.hypotheses.findIndex((one) => one.faults[0]?.mode === 'open' && !one.intermittent);
  const asked: TakenReading = {
    id: 'complaint',
    test: { kind: 'function', ...FAN },
    value: { state: 'dead' },
  };
  const readings = [asked, ...readingsOf(h, 100, 2)];
  const { suspects, effects } = session.assess({ readings, refused: [], opened: [] });
  expect(suspects[0]!.parts).toContain(session.hypotheses[h]!.parts[0]);
  expect(effects).toHaveLength(readings.length);
});
