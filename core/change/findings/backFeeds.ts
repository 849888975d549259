/** Two sources that meet: a fuse, the key or an output run through backwards, or a dead feed held up from behind. */

import { PROTECTORS } from '../../circuit';
import type { CircuitPart } from '../../format';
import { HELD_UP_SHARE } from '../../limits';
import { figure } from '../../sizing';
import { flowPath, wayWords } from '../flowPath';
import { settingWords } from '../settings';
import type { Finding, FindingKind, Scene } from './finding';

/** Less is a meter’s leakage, ampere. */
const BACK_AMPS = 0.02;

const FEEDS: readonly CircuitPart['kind'][] = [...PROTECTORS, 'key-contact'];

/** Whether a way goes through a part that joins two sources on purpose. */
const isMeant = ({ facts }: Scene, path: readonly string[]) => path.some((id) => facts.ties?.includes(id));

function runBackwards(scene: Scene): Finding[] {
  const { before, after, beforeModel, afterModel, settings } = scene;
  return after.parts.flatMap((part): Finding[] => {
    if (!FEEDS.includes(part.kind)) return [];
    const [branch] = afterModel.network.branchesOfPart.get(part.id) ?? [];
    if (branch === undefined) return [];
    const [old] = beforeModel.network.branchesOfPart.get(part.id) ?? [];
    const found = settings.find(
      ({ before: was, after: is }) =>
        is.amps[branch]! < -BACK_AMPS && (old === undefined || was.amps[old]! >= -BACK_AMPS),
    );
    if (!found) return [];
    const amps = -found.after.amps[branch]!;
    const way = flowPath(afterModel, found.after, branch);
    if (isMeant(scene, way)) return [];
    const known = before.parts.some(({ id }) => id === part.id);
    return [
      {
        kind: 'back-feeds',
        level: 'danger',
        words: `${figure(amps, 'A')} flows backwards through ${part.name}, ${settingWords(after, found.at)}: two sources meet${known ? '' : ' at what was added'}. Its way: ${wayWords(afterModel, way)}.`,
        at: found.at,
        path: [part.id, ...way.filter((id) => id !== part.id)],
        amount: { value: amps, unit: 'A' },
        remedy: 'Break the old feed, or part the two by a diode or a relay.',
      },
    ];
  });
}

/** Feeds that were dead in a setting and now stand higher behind than before them. */
function heldUp(scene: Scene, told: ReadonlySet<string>): Finding[] {
  const { before, after, beforeModel, afterModel, settings } = scene;
  return before.parts.flatMap((part): Finding[] => {
    const pins = part.pins as Readonly<Record<string, string>>;
    const feed = FEEDS.some((kind) => kind === part.kind);
    const [from, to] = feed
      ? [pins.in, pins.out]
      : part.kind === 'module-output'
        ? [pins.plus, pins.out]
        : [];
    if (from === undefined || to === undefined || told.has(part.id)) return [];
    if (part.kind === 'module-output' && part.side === 'low') return [];
    const now = after.parts.find(({ id }) => id === part.id);
    if (!now || JSON.stringify(now.pins) !== JSON.stringify(part.pins)) return [];
    const [oldOut, newIn, newOut] = [
      beforeModel.network.nodeIndex.get(to),
      afterModel.network.nodeIndex.get(from),
      afterModel.network.nodeIndex.get(to),
    ];
    if (oldOut === undefined || newIn === undefined || newOut === undefined) return [];
    const limit = after.nominalVolts * HELD_UP_SHARE;
    const found = settings.find(
      ({ before: was, after: is }) =>
        Math.abs(was.volts[oldOut]!) < limit / 2 &&
        is.floating[newOut] !== 1 &&
        is.volts[newOut]! > limit &&
        is.volts[newOut]! > is.volts[newIn]! + limit / 2,
    );
    if (!found) return [];
    const volts = found.after.volts[newOut]!;
    const module = part.kind === 'module-output';
    return [
      {
        kind: module ? 'modules' : 'held-up',
        level: module ? 'doubt' : 'danger',
        words: module
          ? `${part.name} would be pushed from outside to ${figure(volts, 'V')}, ${settingWords(after, found.at)}, while it is off: what it makes of that nobody knows from a circuit.`
          : `${part.name} is held up to ${figure(volts, 'V')} from behind, ${settingWords(after, found.at)}, where it was dead.`,
        at: found.at,
        path: [part.id, to],
        amount: { value: volts, unit: 'V' },
        remedy: module
          ? 'A relay or a diode between the two, or the maker’s word that it bears it.'
          : 'Break the old feed, or part the two by a diode or a relay.',
      },
    ];
  });
}

export const backFeeds: FindingKind = {
  name: 'back-feeds',
  find: (scene) => {
    const backwards = runBackwards(scene);
    return [...backwards, ...heldUp(scene, new Set(backwards.flatMap(({ path }) => path)))];
  },
};
