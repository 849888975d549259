/** What was only pulled, and somebody puts back: a feed that meets another again needs a second break. */
import { CircuitModel } from '../../network';
import { playPlan } from '../apply';
import { settingsOf } from '../settings';
import { backFeeds } from './backFeeds';
import type { Finding, FindingKind } from './finding';
import { liveEnds } from './liveEnds';

export const secondBreak: FindingKind = {
  name: 'second-break',
  find: (scene) => {
    const { before, edits, beforeModel } = scene;
    const stands = [...backFeeds.find(scene), ...liveEnds.find(scene)];
    const known = new Set(stands.map(({ kind, path }) => `${kind} ${path.join()}`));
    return edits.flatMap((edit): Finding[] => {
      if (edit.kind !== 'take-out' || !edit.kept) return [];
      const part = before.parts.find(({ id }) => id === edit.part);
      if (!part) return [];
      const back = playPlan(
        before,
        edits.filter((one) => one !== edit),
      );
      if (back.stuck) return [];
      const afterModel = new CircuitModel(back.after);
      const settings = settingsOf(beforeModel, afterModel);
      if (settings === null) return [];
      const again = { ...scene, after: back.after, afterModel, settings };
      const [first] = [...backFeeds.find(again), ...liveEnds.find(again)].filter(
        ({ kind, path }) => !known.has(`${kind} ${path.join()}`),
      );
      return first
        ? [
            {
              ...first,
              kind: 'second-break',
              words: `${part.name} is only out: once somebody puts it back, ${first.words[0]!.toLowerCase()}${first.words.slice(1)}`,
              remedy: 'A second break at another place, and a label in the slot that says so.',
            },
          ]
        : [];
    });
  },
};
