import fc from 'fast-check';
import { cavityRows, plugsFrom, plugsText, stepsFrom, stepsText } from './lines';

const word = fc.stringMatching(/^[a-z]{1,8}( [a-z]{1,8})?$/);

test('steps and plugs written as lines are read back the same', () => {
  const step = fc.record(
    {
      words: word,
      fastener: word,
      tool: word,
      direction: word,
      breaks: word,
      minutes: fc.constantFrom(0.5, 1, 3),
    },
    { requiredKeys: ['words'] },
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 6 }), (steps) => {
      expect(stepsFrom(stepsText(steps))).toEqual(steps);
    }),
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(word, word, fc.integer({ min: 1, max: 40 })), { maxLength: 6 }),
      (drafts) => {
        const text = drafts.map((draft) => draft.join(' | ')).join('\n');
        const plugs = plugsFrom(text);
        expect(plugs.map((one) => [one.name, one.shape, one.cavities])).toEqual(drafts);
        expect(new Set(plugs.map((one) => one.id)).size).toBe(plugs.length);
        expect(plugsFrom(plugsText(plugs))).toEqual(plugs);
      },
    ),
  );
});

test('a line without cavities is no plug, and bad minutes are left out', () => {
  expect(plugsFrom('Upper plug | grey\nLower | grey | 12 | wire')).toEqual([
    { id: 'plug-lower', name: 'Lower', shape: 'grey', cavities: 12, face: 'wire' },
  ]);
  expect(stepsFrom('Lift | | | | | soon')).toEqual([{ words: 'Lift' }]);
});

test('the two faces of a plug mirror each other, row by row', () => {
  const plug = { cavities: 12, face: 'mating' as const };
  expect(cavityRows(plug, 'mating')).toEqual([
    [1, 2, 3, 4, 5, 6],
    [7, 8, 9, 10, 11, 12],
  ]);
  expect(cavityRows(plug, 'wire')[0]).toEqual([6, 5, 4, 3, 2, 1]);
  expect(cavityRows({ cavities: 2, face: 'wire' }, 'wire')).toEqual([[1, 2]]);
});
