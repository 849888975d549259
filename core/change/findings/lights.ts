/** Lamps that a change touches: what a typical set of light rules asks, to be looked up where the vehicle is used. */
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';
import { differencesOf } from './functions';

/** Lamps that a road or a waterway asks for, by their usual names. */
const ROAD =
  /\b(head|dip|dipped|main beam|beam|marker|side|tail|rear|stop|brake|turn|indicator|hazard|fog|revers|number plate|plate light|flash|anchor|navigation|position)/i;
/** Positions of a switch that a hand holds to give a sign. */
const FLASH = /flash|pass/i;

export const lights: FindingKind = {
  name: 'lights',
  find: (scene) =>
    scene.before.functions.flatMap((one): Finding[] => {
      const [id = ''] = one.load.split(':');
      const part = scene.before.parts.find((each) => each.id === id);
      if (part?.kind !== 'lamp' && part?.kind !== 'led') return [];
      const road = ROAD.test(`${one.name} ${part.name}`);
      const differs = differencesOf(scene, one.id);
      const lost = differs.find(
        ({ was, is, setting }) =>
          was !== 'dead' &&
          is === 'dead' &&
          Object.values(setting.at).some((position) => FLASH.test(position)),
      );
      const touched =
        differs.length > 0 ||
        JSON.stringify(part) !== JSON.stringify(scene.after.parts.find((each) => each.id === id));
      return [
        ...(lost
          ? [
              {
                kind: 'lights',
                level: 'danger',
                words: `${one.name} no longer answers the flash, ${settingWords(scene.after, lost.setting.at)}.`,
                at: lost.setting.at,
                path: [one.load, 'flash'],
                amount: null,
                remedy: 'Feed it behind the contact of the flash as well, parted by a diode or a relay.',
              } satisfies Finding,
            ]
          : []),
        ...((road ? touched : differs.length > 0) &&
        scene.after.functions.some(({ id: still }) => still === one.id)
          ? [
              {
                kind: 'lights',
                level: 'mind',
                words: `${one.name} ${road ? 'is a lamp that rules are about' : 'changes, and rules may be about it where it is seen from outside'}: when it may be on, its aim and its glare are to be looked up and seen. What stands here is a typical set, local rules first.`,
                at: null,
                path: [one.load, 'rule'],
                amount: null,
                remedy: 'Answer the check of the lights; the job stays open until then.',
              } satisfies Finding,
            ]
          : []),
      ];
    }),
};
