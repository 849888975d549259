/** Taps: in whose slot, which way round, of which family. */
import { partsBehind } from '../../circuit';
import { safetyMarks } from '../../safety';
import type { Finding, FindingKind } from './finding';

export const taps: FindingKind = {
  name: 'taps',
  find: ({ before, edits }) =>
    edits.flatMap((edit): Finding[] => {
      if (edit.kind !== 'tap') return [];
      const fuse = before.parts.find(({ id }) => id === edit.fuse);
      if (fuse?.kind !== 'fuse') return [];
      const marks = safetyMarks(before);
      const safe = [fuse, ...partsBehind(before, fuse.id)].find(({ id }) => marks.parts.has(id));
      const one = (words: string, remedy: string): Finding => ({
        kind: 'taps',
        level: 'danger',
        words,
        at: null,
        path: [fuse.id, edit.addedFuse],
        amount: null,
        remedy,
      });
      return [
        ...(safe
          ? [
              one(
                `${fuse.name} feeds ${safe.name}, a safety function: nothing is tapped there.`,
                'Another feed.',
              ),
            ]
          : []),
        ...(edit.side === 'load'
          ? [
              one(
                `The tap stands the wrong way round: what is added runs through ${fuse.name} too.`,
                'Turn it round: its incoming leg on the supply side.',
              ),
            ]
          : []),
        ...(fuse.family !== undefined && fuse.family !== edit.family
          ? [
              one(
                `A tap for ${edit.family.replace(/-/g, ' ')} does not seat in the slot of ${fuse.name}, ${fuse.family.replace(/-/g, ' ')}.`,
                `A tap for ${fuse.family.replace(/-/g, ' ')}.`,
              ),
            ]
          : []),
      ];
    }),
};
