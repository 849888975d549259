/** A return that is lifted: the earth that others share with what is new. */
import { MAY_LIFT_ELECTRONICS_VOLTS, MAY_LIFT_VOLTS } from '../../limits';
import { figure } from '../../sizing';
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

/** From here on what shares it works badly, volts. */
const DANGER_VOLTS = 0.5;

export const returns: FindingKind = {
  name: 'returns',
  find: ({ before, after, beforeModel, afterModel, settings }) =>
    before.parts.flatMap((part): Finding[] => {
      const minus = (part.pins as Readonly<Record<string, string>>).minus;
      const load = part.kind !== 'battery' && part.kind !== 'charging-source';
      if (!load || minus === undefined || !after.parts.some(({ id }) => id === part.id)) return [];
      const [old, now] = [beforeModel, afterModel].map((model) => model.network.nodeIndex.get(minus));
      if (old === undefined || now === undefined) return [];
      const limit =
        part.kind === 'module' || part.kind === 'led' ? MAY_LIFT_ELECTRONICS_VOLTS : MAY_LIFT_VOLTS;
      const found = settings.reduce<{ volts: number; at: Readonly<Record<string, string>> } | null>(
        (most, { at, before: was, after: is }) => {
          const volts = is.volts[now]! - was.volts[old]!;
          const lifted = is.floating[now] !== 1 && is.volts[now]! > limit && volts > limit / 2;
          return lifted && volts > (most?.volts ?? 0) ? { volts: is.volts[now]!, at } : most;
        },
        null,
      );
      if (!found) return [];
      return [
        {
          kind: 'returns',
          level: found.volts > DANGER_VOLTS ? 'danger' : 'mind',
          words: `The return of ${part.name} stands at ${figure(found.volts, 'V')}, ${settingWords(after, found.at)}: what is new shares it.`,
          at: found.at,
          path: [part.id, minus],
          amount: { value: found.volts, unit: 'V' },
          remedy: 'An earth of its own for what is new, or a thicker return.',
        },
      ];
    }),
};
