/** Another load behind what feeds one already, on every pattern. */
import { CircuitModel } from '../network/model';
import { feedPin, withLoadBehind } from './grow';
import { circuitOfPattern, PATTERNS, type ReturnPath } from './patterns';
import { readNotation } from './read';

const CASES = PATTERNS.flatMap((pattern) =>
  (['body', 'insulated'] as const).map((returns) => [pattern.id, returns, pattern] as const),
);

test.each(CASES)(
  '%s, return by %s: a load behind each feed works, and the rest is as it was',
  (_, returns, pattern) => {
    const input = {
      load: 'Step lamp',
      kind: 'lamp',
      nominalVolts: 24,
      returns: returns as ReturnPath,
    } as const;
    const { circuit: before, text } = circuitOfPattern(pattern, input);
    const feeds = before.parts.filter((part) => feedPin(part) !== null);
    expect(feeds.length).toBeGreaterThan(0);
    const sound = new CircuitModel(before);
    for (const feed of feeds) {
      const taken = new Set(['W9', 'L2']);
      const grown = withLoadBehind(text, before, {
        part: feed.id,
        kind: 'lamp',
        name: 'Second lamp',
        taken,
      })!;
      const { circuit, problems } = readNotation(grown);
      expect(problems).toEqual([]);
      const model = new CircuitModel(circuit!);
      const second = circuit!.functions.find(({ name }) => name === 'Second lamp')!;
      expect(taken.has(second.load)).toBe(false);
      expect(second.load).not.toBe(before.functions[0]!.load);
      const states = circuit!.conditions.map(({ id }) => model.outcome(second, model.sound(id)));
      expect(states).toContain('works');
      for (const one of before.functions) {
        for (const { id } of before.conditions) {
          expect([feed.id, id, model.outcome(one, model.sound(id))]).toEqual([
            feed.id,
            id,
            sound.outcome(one, sound.sound(id)),
          ]);
        }
      }
    }
  },
);

test('what nothing can hang on grows no load', () => {
  const { circuit, text } = circuitOfPattern(PATTERNS[0]!, { load: 'Fan', kind: 'motor', nominalVolts: 12 });
  const wanted = { kind: 'lamp', name: 'Second lamp', taken: new Set<string>() } as const;
  for (const part of ['W1', 'L1', 'G1', 'nothing']) {
    expect(withLoadBehind(text, circuit, { part, ...wanted })).toBeNull();
  }
});
