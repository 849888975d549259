/** Loads that may be on for seconds only, and would stay on with no hand on them. */
import type { CircuitModel, OperatingPoint } from '../../network';
import { partMayBeOnSeconds } from '../../safety';
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

/** Whether a load runs, or a coil holds, at a point; false where the circuit has neither of that name. */
function isOn(model: CircuitModel, id: string, point: OperatingPoint): boolean {
  if (model.network.loads.has(id)) return model.outcome({ id, name: id, load: id }, point) !== 'dead';
  return model.network.sensors.some(
    ({ part, label }, index) => part === id && label === 'coil' && point.sensed[index] === 1,
  );
}

export const shortTime: FindingKind = {
  name: 'short-time',
  find: ({ after, beforeModel, afterModel, settings }) => {
    const springs = after.parts.filter((part) => part.kind === 'switch' && part.momentary === true);
    const untouched = ({ at }: (typeof settings)[number]) =>
      springs.every((part) => part.kind !== 'switch' || (at[part.id] ?? part.rest) === part.rest);
    return after.parts.flatMap((part): Finding[] => {
      const seconds = partMayBeOnSeconds(after, part);
      if (seconds === null) return [];
      const stays = settings.find(
        (setting) => untouched(setting) && isOn(afterModel, part.id, setting.after),
      );
      const did = settings.some(
        (setting) => untouched(setting) && isOn(beforeModel, part.id, setting.before),
      );
      if (!stays || did) return [];
      return [
        {
          kind: 'short-time',
          level: 'danger',
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
