/** What a person would see differ: functions that work, are weak, dead or on where they were not; asked for or not. */

import type { FunctionOutcome } from '../../network';
import { isHot, isMoving } from '../../safety';
import { type Setting, settingsOf, settingWords } from '../settings';
import type { Finding, FindingKind, Level, Scene } from './finding';
import { askedFor } from './goals';

const OUTCOME: Readonly<Record<FunctionOutcome, string>> = { works: 'on', weak: 'weak', dead: 'off' };

export interface Difference {
  readonly setting: Setting;
  readonly was: FunctionOutcome;
  readonly is: FunctionOutcome;
  readonly asked: boolean;
}

/** Settings in which a function of both circuits differs. */
export function differencesOf(scene: Scene, functionId: string): Difference[] {
  const { before, after, beforeModel, afterModel, settings } = scene;
  const one = before.functions.find(({ id }) => id === functionId);
  const still = after.functions.find(({ id }) => id === functionId);
  if (!one || !still) return [];
  return settings.flatMap((setting) => {
    const [was, is] = [beforeModel.outcome(one, setting.before), afterModel.outcome(still, setting.after)];
    return was === is
      ? []
      : [
          {
            setting,
            was,
            is,
            asked: scene.facts.undoes !== undefined || askedFor(scene, functionId, setting, is !== 'dead'),
          },
        ];
  });
}

/** Every setting of a circuit by itself, worked out once for all of its functions. */
const ownSettings = new WeakMap<Scene['beforeModel'], readonly Setting[]>();

/** On in no setting any more, though it was on in some: also where what switched it was taken out. */
function isLost({ before, beforeModel, after, afterModel, settings }: Scene, functionId: string): boolean {
  const one = before.functions.find(({ id }) => id === functionId)!;
  const still = after.functions.find(({ id }) => id === functionId)!;
  if (settings.some((setting) => afterModel.outcome(still, setting.after) !== 'dead')) return false;
  if (settings.some((setting) => beforeModel.outcome(one, setting.before) !== 'dead')) return false;
  // Only what switched it can have gone: else it was as dead before.
  const there = new Set(after.parts.map(({ id }) => id));
  const gone = before.parts.some(
    ({ id, kind }) => (kind === 'switch' || kind === 'socket') && !there.has(id),
  );
  if (!gone) return false;
  const own = ownSettings.get(beforeModel) ?? settingsOf(beforeModel, beforeModel).settings;
  ownSettings.set(beforeModel, own);
  return own.some((setting) => beforeModel.outcome(one, setting.before) !== 'dead');
}

/** Differences of one sort as one sentence. */
function said(scene: Scene, functionId: string, all: readonly Difference[], level: Level): Finding[] {
  const ways = new Map<string, Difference[]>();
  for (const one of all) {
    const way = `${one.was} ${one.is}`;
    ways.set(way, [...(ways.get(way) ?? []), one]);
  }
  const { name, load } = scene.before.functions.find(({ id }) => id === functionId)!;
  return [...ways.values()].map((same): Finding => {
    const [{ setting, was, is }] = same as [Difference];
    const others =
      same.length === 1
        ? ''
        : ` and in ${same.length - 1} other ${same.length === 2 ? 'setting' : 'settings'}`;
    return {
      kind: 'functions',
      level,
      words: `${name}: ${OUTCOME[was]} before, ${OUTCOME[is]} after, ${settingWords(scene.after, setting.at)}${others}${level === 'asked' ? ', as asked for' : ''}.`,
      at: setting.at,
      path: [load, `${was}-${is}`, ...(level === 'asked' ? ['asked'] : [])],
      amount: null,
      remedy: level === 'asked' ? '' : 'Say that it was asked for, or change the plan.',
    };
  });
}

/** Names of what keeps something from running while somebody is in its way. */
const GUARDS = /\b(interlock|guard|lid|door|neutral|seat|clutch|isolator|emergency|kill|keeper|limit)\b/i;

/** Switches that had to be turned for a function, and that no longer hold it. */
function bypassed(scene: Scene, functionId: string, found: readonly Difference[]): Finding[] {
  const { before, beforeModel, settings, after } = scene;
  const one = before.functions.find(({ id }) => id === functionId)!;
  const [first] = found.filter(({ was, is }) => was === 'dead' && is !== 'dead');
  if (!first) return [];
  return before.parts.flatMap((part): Finding[] => {
    if (part.kind !== 'switch') return [];
    const guards =
      GUARDS.test(part.name) ||
      isMoving(before, functionId) ||
      isHot(before, functionId) ||
      one.safetyCritical;
    if (!guards) return [];
    const position = first.setting.at[part.id] ?? part.rest;
    const at = (setting: Setting) => setting.at[part.id] ?? part.rest;
    const on = (setting: Setting) => beforeModel.outcome(one, setting.before) !== 'dead';
    const held = settings.every((setting) => at(setting) !== position || !on(setting));
    if (!held || !settings.some(on)) return [];
    return [
      {
        kind: 'interlocks',
        level: 'danger',
        words: `${part.name} no longer holds ${one.name} off: it runs with it at ${position}, ${settingWords(after, first.setting.at)}.`,
        at: first.setting.at,
        path: [part.id, one.load],
        amount: null,
        remedy: 'Feed it behind that switch, or put the switch into the new way too.',
      },
    ];
  });
}

export const functions: FindingKind = {
  name: 'functions',
  find: (scene) =>
    scene.before.functions.flatMap((one): Finding[] => {
      if (!scene.after.functions.some(({ id }) => id === one.id)) {
        return [
          {
            kind: 'functions',
            level: 'mind',
            words: `${one.name} is no more: what it is seen by was taken out.`,
            at: null,
            path: [one.load],
            amount: null,
            remedy: 'Where that was not meant, leave it in.',
          },
        ];
      }
      const all = differencesOf(scene, one.id);
      if (isLost(scene, one.id)) {
        return [
          {
            kind: 'functions',
            level: 'danger',
            words: `${one.name} can be switched on in no setting any more.`,
            at: null,
            path: [one.load, 'lost'],
            amount: null,
            remedy: 'Give it a switch, or take it out and its wires with it.',
          },
        ];
      }
      const unasked = all.filter(({ asked }) => !asked);
      return [
        ...bypassed(scene, one.id, unasked),
        ...said(scene, one.id, unasked, 'danger'),
        ...said(
          scene,
          one.id,
          all.filter(({ asked }) => asked),
          'asked',
        ),
      ];
    }),
};
