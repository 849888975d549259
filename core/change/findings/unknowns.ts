/** What the plan rests on and nobody has seen here: listed, never assumed. */
import { patchBetween, touchedParts } from '../patch';
import type { Finding, FindingKind } from './finding';

export const unknowns: FindingKind = {
  name: 'unknowns',
  find: ({ before, after, facts }) => {
    const one = (words: string, path: readonly string[], remedy: string): Finding => ({
      kind: 'unknowns',
      level: 'doubt',
      words,
      at: null,
      path,
      amount: null,
      remedy,
    });
    const touched = new Set(touchedParts(patchBetween(before, after)));
    const parts = after.parts.filter(({ id }) => touched.has(id));
    return [
      ...(facts.unknown ?? []).map((words) => one(words, [], 'Find it out, or leave what rests on it.')),
      ...Object.entries(facts.unverified ?? {}).map(([of, words]) =>
        one(`Not verified on this vehicle: ${words}`, [of], 'See it here, and say so in the plan.'),
      ),
      ...parts.flatMap((part): Finding[] => {
        if (part.kind === 'wire' && (part.sizeMm2 === undefined || part.lengthMetres === undefined)) {
          return [
            one(
              `${part.name}: ${part.sizeMm2 === undefined ? 'its size' : 'its length'} is not known, so what it carries and loses is not worked out.`,
              [part.id],
              'Measure it.',
            ),
          ];
        }
        if (part.kind === 'fuse' && part.ratingAmps === undefined)
          return [one(`${part.name}: its rating is not known.`, [part.id], 'Read it on the fuse.')];
        return [];
      }),
    ];
  },
};
