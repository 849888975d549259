import fc from 'fast-check';
import {
  cavityRows,
  disputedFrom,
  disputedText,
  plugsFrom,
  plugsText,
  type ReadLines,
  stepsFrom,
  stepsText,
} from './lines';

function read<T>(answer: ReadLines<T>): readonly T[] {
  if (!answer.ok) throw new Error(answer.message);
  return answer.value;
}

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
      expect(stepsFrom(stepsText(steps))).toEqual({ ok: true, value: steps });
    }),
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(word, word, fc.integer({ min: 1, max: 40 })), { maxLength: 6 }),
      (drafts) => {
        const text = drafts.map((draft) => draft.join(' | ')).join('\n');
        const plugs = read(plugsFrom(text));
        expect(plugs.map((one) => [one.name, one.shape, one.cavities])).toEqual(drafts);
        expect(new Set(plugs.map((one) => one.id)).size).toBe(plugs.length);
        expect(read(plugsFrom(plugsText(plugs), plugs))).toEqual(plugs);
      },
    ),
  );
});

test.each([
  [stepsFrom('Lift\nPull | | | | | soon'), 'Line 2: the minutes: “soon” is no number.'],
  [stepsFrom('Pull | clip | hand | up | tab | 2 | more'), 'Line 1: “more” is one part too many'],
  [stepsFrom(' | clip'), 'Line 1: say the step'],
  [plugsFrom('\nUpper plug | grey'), 'Line 2: how many cavities? Write a whole number from 1 to 200.'],
  [plugsFrom('Upper plug | grey | 2.5'), 'not 2.5'],
  [plugsFrom('Upper plug | grey | 12 | back'), '“back” is no face'],
  [plugsFrom('| grey | 12'), 'say the name of the plug'],
  [disputedFrom('the lid says 15'), 'say the source, a colon'],
  [disputedFrom('lid:'), 'what does lid say?'],
])('a line that cannot be read is said by its number, and nothing is dropped: %#', (answer, words) => {
  expect(answer).toMatchObject({ ok: false, message: expect.stringContaining(words) });
});

test('a plug that is known keeps its id, also when lines move; a new one takes none that is there', () => {
  const before = read(plugsFrom('Upper | grey | 12\nLower | grey | 8 | wire')).map((plug, n) => ({
    ...plug,
    id: `imported-${n}`,
  }));
  const moved = read(plugsFrom('Lower | black | 8 | wire\nUpper | grey | 12\nimported 0 | x | 2', before));
  expect(moved.map((plug) => plug.id)).toEqual(['imported-1', 'imported-0', 'plug-imported-0']);
  expect(read(plugsFrom(plugsText(before), before))).toEqual(before);
});

test('what other sources say is read back as it was written', () => {
  const disputed = [{ source: 'Lid', says: '15 A: see note' }];
  expect(read(disputedFrom(disputedText(disputed)))).toEqual(disputed);
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
