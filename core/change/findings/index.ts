/** Every kind of finding; one more is a file more and a line here. */

import { CircuitModel } from '../../network';
import type { Played } from '../apply';
import { touchedParts } from '../patch';
import { MOST_SETTINGS, settingsOf } from '../settings';
import { backFeeds } from './backFeeds';
import type { Finding, FindingKind, Scene } from './finding';
import { functions } from './functions';
import { liveEnds } from './liveEnds';
import { overloads } from './overloads';
import { protection } from './protection';

export type { Finding } from './finding';

const KINDS: readonly FindingKind[] = [backFeeds, liveEnds, protection, overloads, functions];

/** What a plan does to a circuit, dangers first. Throws where there are more settings than are looked at. */
export function findingsOf({ before, after, applied }: Played): readonly Finding[] {
  const [beforeModel, afterModel] = [new CircuitModel(before), new CircuitModel(after)];
  const settings = settingsOf(beforeModel, afterModel);
  if (settings === null) {
    throw new Error(`More than ${MOST_SETTINGS} settings of key and switches: too many to look at.`);
  }
  const touched = new Set(applied.flatMap(({ patch }) => touchedParts(patch)));
  const scene: Scene = { before, after, beforeModel, afterModel, settings, touched };
  const found = KINDS.flatMap((kind) => kind.find(scene));
  return [...found.filter(({ danger }) => danger), ...found.filter(({ danger }) => !danger)];
}
