/** What was only pulled, and somebody puts back: a feed that meets another again needs a second break. */
import type { CircuitFile } from '../../format';
import { CircuitModel } from '../../network';
import { playPlan } from '../apply';
import { dialsOfBoth, settingsOf } from '../settings';
import { backFeeds } from './backFeeds';
import type { Finding, FindingKind } from './finding';
import { liveEnds } from './liveEnds';

/**
 * Parts that a part has to do with: joined to it at any point but the posts of the sources, or moved by a coil that is. What
 * is reached through the posts alone shares nothing but the volts of the battery.
 */
function about(circuit: CircuitFile, id: string): ReadonlySet<string> {
  const posts = new Set([circuit.reference]);
  for (const part of circuit.parts) {
    if (part.kind === 'battery' || part.kind === 'charging-source') {
      posts.add(part.pins.plus);
      posts.add(part.pins.minus);
    }
    if (part.kind === 'ground') posts.add(part.pins.body);
  }
  const at = new Map<string, string[]>();
  const pins = new Map<string, string[]>();
  for (const part of circuit.parts) {
    const own = (Object.values(part.pins) as string[]).filter((node) => !posts.has(node));
    pins.set(part.id, own);
    for (const node of own) at.set(node, [...(at.get(node) ?? []), part.id]);
  }
  const found = new Set([id]);
  for (const one of found)
    for (const node of pins.get(one) ?? []) for (const next of at.get(node) ?? []) found.add(next);
  return found;
}

export const secondBreak: FindingKind = {
  name: 'second-break',
  find: (scene) => {
    const { before, edits, beforeModel } = scene;
    const pulled = edits.filter((edit) => edit.kind === 'take-out' && edit.kept);
    if (pulled.length === 0) return [];
    const stands = [...backFeeds.find(scene), ...liveEnds.find(scene)];
    const known = new Set(stands.map(({ kind, path }) => `${kind} ${path[0]}`));
    return pulled.flatMap((edit): Finding[] => {
      if (edit.kind !== 'take-out') return [];
      const part = before.parts.find(({ id }) => id === edit.part);
      if (!part) return [];
      const back = playPlan(
        before,
        edits.filter((one) => one !== edit),
      );
      if (back.stuck) return [];
      const near = about(back.after, part.id);
      const dials = dialsOfBoth(before, back.after).filter(
        ({ id }) => id === 'key' || id === 'engine' || near.has(id),
      );
      const afterModel = new CircuitModel(back.after);
      const { settings } = settingsOf(beforeModel, afterModel, undefined, dials);
      const again = { ...scene, after: back.after, afterModel, settings };
      const [first] = [...backFeeds.find(again), ...liveEnds.find(again)].filter(
        ({ kind, path, level }) => level === 'danger' && !known.has(`${kind} ${path[0]}`),
      );
      if (!first) return [];
      return [
        {
          ...first,
          kind: 'second-break',
          words: `${part.name} is only out: once somebody puts it back, ${first.words[0]!.toLowerCase()}${first.words.slice(1)}`,
          path: [part.id, ...first.path.filter((id) => id !== part.id)],
          remedy: 'A second break at another place, and a label in the slot that says so.',
        },
      ];
    });
  },
};
