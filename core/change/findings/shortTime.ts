/** Loads that may be on for seconds only, and would stay on with no hand on them. */
import type { CircuitModel, OperatingPoint } from '../../network';
import { partMayBeOnSeconds } from '../../safety';
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

export const shortTime: FindingKind = {
  name: 'short-time',
  find: ({ after, beforeModel, afterModel, settings }) => {
    const springs = after.parts.filter((part) => part.kind === 'switch' && part.momentary === true);
    const untouched = ({ at }: (typeof settings)[number]) =>
      springs.every((part) => part.kind !== 'switch' || (at[part.id] ?? part.rest) === part.rest);
    const isOn = (model: CircuitModel, load: string, point: OperatingPoint) =>
      model.outcome({ id: load, name: load, load }, point) !== 'dead';
    return after.parts.flatMap((part): Finding[] => {
      if (!afterModel.network.loads.has(part.id)) return [];
      const seconds = partMayBeOnSeconds(after, part);
      if (seconds === null) return [];
      const stays = settings.find(
        (setting) => untouched(setting) && isOn(afterModel, part.id, setting.after),
      );
      const did = settings.some(
        (setting) =>
          beforeModel.network.loads.has(part.id) &&
          untouched(setting) &&
          isOn(beforeModel, part.id, setting.before),
      );
      if (!stays || did) return [];
      return [
        {
          kind: 'short-time',
          danger: true,
          words: `${part.name} may be on for ${seconds} s only and stays on by itself, ${settingWords(after, stays.at)}.`,
          at: stays.at,
          path: [part.id],
          amount: null,
          remedy: 'A switch that springs back, and somebody who watches; or a timer that ends it.',
        },
      ];
    });
  },
};
