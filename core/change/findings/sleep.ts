/** What is drawn with the key off and nothing switched, before and after. */
import { SLEEP_DRAW_AMPS } from '../../limits';
import { drawsAsleep } from '../../live';
import { figure } from '../../sizing';
import type { FindingKind } from './finding';

/** Less more than before nobody hunts, ampere. */
const MORE_AMPS = 0.002;

export const sleep: FindingKind = {
  name: 'sleep',
  find: ({ beforeModel, afterModel }) => {
    const total = (model: typeof beforeModel) => drawsAsleep(model).reduce((sum, { amps }) => sum + amps, 0);
    const [was, is] = [total(beforeModel), total(afterModel)];
    if (is <= was + MORE_AMPS) return [];
    const old = new Map(drawsAsleep(beforeModel).map(({ part, amps }) => [part, amps]));
    const more = drawsAsleep(afterModel).filter(({ part, amps }) => amps > (old.get(part) ?? 0) + MORE_AMPS);
    return [
      {
        kind: 'sleep',
        level: 'mind',
        words: `With the key off it draws ${figure(is, 'A')} instead of ${figure(was, 'A')}${is > SLEEP_DRAW_AMPS ? `, more than the usual ${figure(SLEEP_DRAW_AMPS, 'A')}` : ''}: ${more.map(({ name }) => name).join(', ')}. That is ${figure((is - was) * 24, 'Ah')} more a day.`,
        at: null,
        path: more.map(({ part }) => part),
        amount: { value: is, unit: 'A' },
        remedy: 'A feed that dies with the key, where it is not wanted then.',
      },
    ];
  },
};
