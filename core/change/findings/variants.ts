/** Ways of doing it of which one has to be chosen: steps of two of them do not stand beside each other. */
import type { FindingKind } from './finding';

export const variants: FindingKind = {
  name: 'variants',
  find: ({ edits, facts }) => {
    const used = [...new Set(edits.flatMap(({ variant }) => variant ?? []))];
    if (used.length === 0 || (facts.chosen !== undefined && used.length === 1)) return [];
    const name = (id: string) => facts.variants?.find((one) => one.id === id)?.name ?? id;
    return [
      {
        kind: 'variants',
        level: 'danger',
        words:
          used.length > 1
            ? `Steps of ${used.map((id) => `“${name(id)}”`).join(' and ')} stand in one plan: they belong to different builds.`
            : `Nobody has said whether it is “${name(used[0]!)}”.`,
        at: null,
        path: used,
        amount: null,
        remedy: 'Choose which one is in front of you, by what is printed on it.',
      },
    ];
  },
};
