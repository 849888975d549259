/** Current into a feed: a fuse, the key or a contact of the supply that is run through backwards. */
import { figure } from '../../sizing';
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

/** Less is a meter’s leakage, ampere. */
const BACK_AMPS = 0.02;

const FEEDS = ['fuse', 'fusible-link', 'breaker', 'key-contact'] as const;

export const backFeeds: FindingKind = {
  name: 'back-feeds',
  find: ({ before, after, beforeModel, afterModel, settings }) =>
    after.parts.flatMap((part): Finding[] => {
      if (!FEEDS.some((kind) => kind === part.kind)) return [];
      const [branch] = afterModel.network.branchesOfPart.get(part.id) ?? [];
      if (branch === undefined) return [];
      const [old] = beforeModel.network.branchesOfPart.get(part.id) ?? [];
      const found = settings.find(
        ({ before: was, after: is }) =>
          is.amps[branch]! < -BACK_AMPS && (old === undefined || was.amps[old]! >= -BACK_AMPS),
      );
      if (!found) return [];
      const amps = -found.after.amps[branch]!;
      const known = before.parts.some(({ id }) => id === part.id);
      return [
        {
          kind: 'back-feeds',
          danger: true,
          words: `${figure(amps, 'A')} flows backwards through ${part.name}, ${settingWords(after, found.at)}: two sources meet${known ? '' : ' at what was added'}.`,
          at: found.at,
          path: [part.id],
          amount: { value: amps, unit: 'A' },
          remedy: 'Break the old feed, or part the two by a diode or a relay.',
        },
      ];
    }),
};
