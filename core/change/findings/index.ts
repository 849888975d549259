/** Every kind of finding; one more is a file more and a line here. */

import { CircuitModel } from '../../network';
import type { Played } from '../apply';
import { MOST_SETTINGS, settingsOf } from '../settings';
import { backFeeds } from './backFeeds';
import type { Finding, FindingKind, Scene } from './finding';
import { functions } from './functions';
import { liveEnds } from './liveEnds';
import { overloads } from './overloads';
import { protection } from './protection';
import { returns } from './returns';
import { secondBreak } from './secondBreak';
import { shortTime } from './shortTime';
import { sleep } from './sleep';
import { taps } from './taps';

export type { Finding } from './finding';

const KINDS: readonly FindingKind[] = [
  backFeeds,
  secondBreak,
  liveEnds,
  taps,
  protection,
  overloads,
  shortTime,
  returns,
  functions,
  sleep,
];

/** What a plan does to a circuit, dangers first. Throws where there are more settings than are looked at. */
export function findingsOf({ before, after, applied }: Played): readonly Finding[] {
  const [beforeModel, afterModel] = [new CircuitModel(before), new CircuitModel(after)];
  const settings = settingsOf(beforeModel, afterModel);
  if (settings === null) {
    throw new Error(`More than ${MOST_SETTINGS} settings of key and switches: too many to look at.`);
  }
  const edits = applied.map(({ edit }) => edit);
  const scene: Scene = { before, after, beforeModel, afterModel, edits, settings };
  const found = KINDS.flatMap((kind) => kind.find(scene));
  return [...found.filter(({ danger }) => danger), ...found.filter(({ danger }) => !danger)];
}
