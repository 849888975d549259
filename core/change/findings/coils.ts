/** Coils quenched by a diode, fed the wrong way round: the diode is a short. */
import { figure } from '../../sizing';
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

/** From here on a diode conducts, volts. */
const CONDUCTS_VOLTS = 0.2;

export const coils: FindingKind = {
  name: 'coils',
  find: ({ before, after, beforeModel, afterModel, settings }) =>
    after.parts.flatMap((part): Finding[] => {
      if (part.kind !== 'relay' || part.suppression !== 'diode') return [];
      const old = before.parts.find(({ id }) => id === part.id);
      const across = (model: typeof afterModel, { pins }: typeof part, volts: Float64Array) =>
        volts[model.network.nodeIndex.get(pins['86'])!]! - volts[model.network.nodeIndex.get(pins['85'])!]!;
      const found = settings.find(
        ({ before: was, after: is }) =>
          across(afterModel, part, is.volts) < -CONDUCTS_VOLTS &&
          (old?.kind !== 'relay' || across(beforeModel, old, was.volts) >= -CONDUCTS_VOLTS),
      );
      if (!found) return [];
      const volts = -across(afterModel, part, found.after.volts);
      return [
        {
          kind: 'coils',
          level: 'danger',
          words: `85 of ${part.name} stands ${figure(volts, 'V')} above 86, ${settingWords(after, found.at)}: the diode across its coil is then a short.`,
          at: found.at,
          path: [part.id],
          amount: { value: volts, unit: 'V' },
          remedy: 'Exchange 85 and 86, or fit a relay that is quenched by a resistor.',
        },
      ];
    }),
};
