/** Every kind of finding; one more is a file more and a line here. */
import type { CircuitFile, PlanFile } from '../../format';
import { CircuitModel } from '../../network';
import { chosenEdits, type Played, playPlan } from '../apply';
import { type Progress, settingsOf } from '../settings';
import { backFeeds } from './backFeeds';
import { charging } from './charging';
import { chatter } from './chatter';
import { coils } from './coils';
import { drops } from './drops';
import type { Finding, FindingKind, Level, PlanFacts, Scene } from './finding';
import { functions } from './functions';
import { goals } from './goals';
import { lights } from './lights';
import { liveEnds } from './liveEnds';
import { modules } from './modules';
import { overloads } from './overloads';
import { packs } from './packs';
import { protection } from './protection';
import { returns } from './returns';
import { secondBreak } from './secondBreak';
import { shortTime } from './shortTime';
import { sleep } from './sleep';
import { taps } from './taps';
import { unknowns } from './unknowns';
import { variants } from './variants';

export { chargingParts } from './charging';
export { type Finding, findingKey, type Level, type PlanFacts } from './finding';
export { goalName, goalsIn } from './goals';

const KINDS: readonly FindingKind[] = [
  backFeeds,
  secondBreak,
  liveEnds,
  goals,
  taps,
  protection,
  overloads,
  shortTime,
  variants,
  charging,
  packs,
  coils,
  chatter,
  returns,
  functions,
  modules,
  lights,
  drops,
  sleep,
  unknowns,
];

const ORDER: readonly Level[] = ['danger', 'mind', 'doubt', 'asked'];

/** A plan played and looked at in every setting. */
export interface Examined {
  readonly played: Played;
  readonly scene: Scene;
  /** Dangers first. */
  readonly findings: readonly Finding[];
  /** Settings that there are; more than `scene.settings` where only every two things were turned together. */
  readonly settingCount: number;
}

/** What a plan does to a circuit, as far as it can be played. */
export function examine(
  before: CircuitFile,
  plan: Pick<PlanFile, 'edits'> & PlanFacts,
  progress?: Progress,
): Examined {
  return examinePlayed(playPlan(before, chosenEdits(plan)), plan, progress);
}

export function examinePlayed(played: Played, facts: PlanFacts = {}, progress?: Progress): Examined {
  const { before, after, applied } = played;
  const [beforeModel, afterModel] = [new CircuitModel(before), new CircuitModel(after)];
  const { settings, count } = settingsOf(beforeModel, afterModel, progress);
  const edits = applied.map(({ edit }) => edit);
  const scene: Scene = { before, after, beforeModel, afterModel, edits, settings, facts };
  const found = KINDS.flatMap((kind) => kind.find(scene));
  const findings = ORDER.flatMap((level) => found.filter((one) => one.level === level));
  return { played, scene, findings, settingCount: count };
}
