/** Parts that would carry more than they may. */
import { ratingOf } from '../../feed';
import { RUNNING_SHARE } from '../../limits';
import { figure } from '../../sizing';
import { settingWords } from '../settings';
import type { Finding, FindingKind, Scene } from './finding';

/** Of a fuse 80 % for good; a wire and a contact may use all of what they carry. */
const shareOf = (kind: string) =>
  kind === 'fuse' || kind === 'fusible-link' || kind === 'breaker' ? RUNNING_SHARE : 1;

function worst({ settings }: Scene, branches: readonly number[]) {
  let most = { amps: 0, at: settings[0]?.at ?? {} };
  for (const { at, after } of settings) {
    for (const branch of branches) {
      const amps = Math.abs(after.amps[branch]!);
      if (amps > most.amps) most = { amps, at };
    }
  }
  return most;
}

export const overloads: FindingKind = {
  name: 'overloads',
  find: (scene) =>
    scene.after.parts.flatMap((part): Finding[] => {
      const rating = ratingOf(part, false);
      const branches = scene.afterModel.network.branchesOfPart.get(part.id) ?? [];
      if (!rating || branches.length === 0) return [];
      const limit = shareOf(part.kind) * rating;
      const { amps, at } = worst(scene, branches);
      const old = scene.beforeModel.network.branchesOfPart.get(part.id) ?? [];
      const was = Math.max(
        0,
        ...scene.settings.flatMap(({ before }) => old.map((branch) => Math.abs(before.amps[branch]!))),
      );
      // What was so before the change is no finding of it.
      if (amps <= limit + 1e-6 || was > limit + 1e-6) return [];
      return [
        {
          kind: 'overloads',
          danger: amps > rating,
          words: `${part.name} would carry ${figure(amps, 'A')} of ${figure(rating, 'A')}${limit < rating ? `, at most ${figure(limit, 'A')} for good` : ''}, ${settingWords(scene.after, at)}.`,
          at,
          path: [part.id],
          amount: { value: amps, unit: 'A' },
          remedy:
            'Another feed, a relay with a feed of its own, or a larger part with all that lies behind it.',
        },
      ];
    }),
};
