/** The class of a feed over every combination of readings: never surer than they allow. */
import { KEY_STATES, type KeyState, type Liveness } from '../limits';
import { classOf } from './classify';

/**
 * Where a feed of each class is live, in the order off, waited, accessory, run, crank, running, in use; a star for what does not
 * matter. Written down from what the words mean, apart from the program.
 */
const WORLDS: Readonly<Record<string, string>> = {
  constant: 'LLLLLL*',
  delayed: 'LDLL*L*',
  accessory: 'DDLLDL*',
  run: 'DDDLDL*',
  ignition: 'DDDLLL*',
  crank: 'DDDDLD*',
  module: 'DDDDDL*',
  'load-side': 'DDDDDDL',
  dead: 'DDDDDDD',
};

type Seen = 'unread' | Liveness;
const SEEN: readonly Seen[] = ['unread', 'live', 'dead', 'weak'];

/** Every combination of what was seen in the seven states: 16,384. */
function* everyReading(): Generator<readonly Seen[]> {
  for (let code = 0; code < SEEN.length ** KEY_STATES.length; code++) {
    let rest = code;
    yield KEY_STATES.map(() => {
      const seen = SEEN[rest % SEEN.length]!;
      rest = Math.floor(rest / SEEN.length);
      return seen;
    });
  }
}

const known = (seen: readonly Seen[]) =>
  new Map(
    KEY_STATES.flatMap((state, index): [KeyState, Liveness][] => {
      const one = seen[index]!;
      return one === 'unread' ? [] : [[state, one]];
    }),
  );

const fits = (world: string, seen: readonly Seen[]) =>
  [...world].every((at, index) => {
    const one = seen[index]!;
    return at === '*' || one === 'unread' || (at === 'L') === (one === 'live');
  });

test('every combination of readings in the seven states', () => {
  let sure = 0;
  let several = 0;
  let strange = 0;
  for (const seen of everyReading()) {
    const finding = classOf(known(seen));
    if (seen.includes('weak')) {
      expect(finding.feed).toBe('unknown');
      continue;
    }
    const left = Object.keys(WORLDS).filter((feed) => fits(WORLDS[feed]!, seen));
    if (seen.every((one) => one === 'unread')) {
      expect(finding).toMatchObject({ feed: 'unknown', missing: [...KEY_STATES] });
    } else if (left.length === 1) {
      sure += 1;
      expect(finding.feed).toBe(left[0]);
      // What its class speaks of and nobody read is told, so that nobody takes it for seen.
      const unread = KEY_STATES.filter(
        (_, index) => seen[index] === 'unread' && WORLDS[left[0]!]![index] !== '*',
      );
      expect(finding.unread).toEqual(unread);
      expect(finding.sentence.includes('not read')).toBe(unread.length > 0);
    } else if (left.length === 0) {
      strange += 1;
      expect(finding).toMatchObject({ feed: 'unknown', possible: [], missing: [] });
      expect(finding.sentence).toMatch(/no pattern/i);
    } else {
      several += 1;
      expect(finding.feed).toBe('unknown');
      expect([...finding.possible].sort()).toEqual([...left].sort());
      expect(finding.missing.length).toBeGreaterThan(0);
      for (const state of finding.missing) {
        const index = KEY_STATES.indexOf(state);
        expect(seen[index]).toBe('unread');
        // Either answer leaves fewer.
        for (const answer of ['live', 'dead'] as const) {
          const then = seen.map((one, at) => (at === index ? answer : one));
          expect(Object.values(WORLDS).filter((world) => fits(world, then)).length).toBeLessThan(left.length);
        }
      }
    }
  }
  expect([sure, several, strange].every((count) => count > 50)).toBe(true);
});

test('one reading more never makes more possible', () => {
  for (const seen of everyReading()) {
    if (seen.includes('weak')) continue;
    const before = classOf(known(seen)).possible;
    if (before.length === 0) continue;
    const index = seen.indexOf('unread');
    if (index < 0) continue;
    for (const answer of ['live', 'dead'] as const) {
      const after = classOf(known(seen.map((one, at) => (at === index ? answer : one)))).possible;
      expect(after.every((feed) => before.includes(feed))).toBe(true);
    }
  }
});
