/** Parts that would carry more than they may. */
import { isProtector } from '../../circuit';
import { ratingOf } from '../../feed';
import type { CircuitPart } from '../../format';
import { RUNNING_SHARE } from '../../limits';
import { figure } from '../../sizing';
import type { At } from '../at';
import { type Setting, settingWords } from '../settings';
import type { Finding, FindingKind, Scene } from './finding';

/** What a part carries for good; an earth point too, where somebody has said it. */
function ratingFor(part: CircuitPart): number | null | undefined {
  if (part.kind === 'ground') return part.carriesAmps;
  return ratingOf(part, part.kind === 'wire' && part.bundled === true);
}

/** Of a fuse 80 % for good; a wire and a contact may use all of what they carry. */
const shareOf = (part: CircuitPart) => (isProtector(part) ? RUNNING_SHARE : 1);

interface Most {
  readonly amps: number;
  readonly at: At;
}

function mostIn(settings: readonly Setting[], branches: readonly number[], when: 'before' | 'after'): Most {
  let most: Most = { amps: 0, at: settings[0]?.at ?? {} };
  for (const setting of settings) {
    for (const branch of branches) {
      const amps = Math.abs(setting[when].amps[branch]!);
      if (amps > most.amps) most = { amps, at: setting.at };
    }
  }
  return most;
}

/** Settings in which no hand holds a switch: what flows there flows for good. */
function forGood({ after, settings }: Scene): readonly Setting[] {
  const springs = after.parts.filter((part) => part.kind === 'switch' && part.momentary === true);
  if (springs.length === 0) return settings;
  return settings.filter(({ at }) =>
    springs.every((part) => part.kind !== 'switch' || (at[part.id] ?? part.rest) === part.rest),
  );
}

export const overloads: FindingKind = {
  name: 'overloads',
  find: (scene) => {
    const rest = forGood(scene);
    return scene.after.parts.flatMap((part): Finding[] => {
      const rating = ratingFor(part);
      const branches = scene.afterModel.network.branchesOfPart.get(part.id) ?? [];
      if (!rating || branches.length === 0) return [];
      const limit = shareOf(part) * rating;
      const old = scene.beforeModel.network.branchesOfPart.get(part.id) ?? [];
      const held = mostIn(scene.settings, branches, 'after');
      const steady = rest === scene.settings ? held : mostIn(rest, branches, 'after');
      const over = held.amps > rating + 1e-6 ? held : steady.amps > limit + 1e-6 ? steady : null;
      if (!over) return [];
      // What was so before the change, and is no worse, is no finding of it.
      const was = mostIn(over === held ? scene.settings : rest, old, 'before').amps;
      const bound = over === held ? rating : limit;
      if (was > bound + 1e-6 && over.amps <= was * 1.02) return [];
      return [
        {
          kind: 'overloads',
          level: over.amps > rating ? 'danger' : 'mind',
          words: `${part.name} would carry ${figure(over.amps, 'A')} of ${figure(rating, 'A')}${limit < rating ? `, at most ${figure(limit, 'A')} for good` : ''}, ${settingWords(scene.after, over.at)}.`,
          at: over.at,
          path: [part.id],
          amount: { value: over.amps, unit: 'A' },
          remedy:
            'Another feed, a relay with a feed of its own, or a larger part with all that lies behind it.',
        },
      ];
    });
  },
};
