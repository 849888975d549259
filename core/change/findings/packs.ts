/** Batteries in a row: one of them loaded alone, and earths that take the body for the pack’s minus. */
import type { CircuitFile } from '../../format';
import { figure } from '../../sizing';
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

/** More than this apart the blocks of a pack drift, ampere. */
const APART_AMPS = 0.02;
/** From this on the body is not taken for the minus of a pack, volts. */
const PACK_VOLTS = 36;

/** Batteries of which one stands on another. */
function rows(circuit: CircuitFile): [string, string][] {
  const batteries = circuit.parts.filter((part) => part.kind === 'battery');
  return batteries.flatMap((upper) =>
    batteries.flatMap((lower): [string, string][] =>
      upper !== lower && upper.pins.minus === lower.pins.plus ? [[upper.id, lower.id]] : [],
    ),
  );
}

export const packs: FindingKind = {
  name: 'packs',
  find: ({ before, after, beforeModel, afterModel, settings }) => [
    ...rows(after).flatMap(([upper, lower]): Finding[] => {
      const apart = (model: typeof afterModel, amps: Float64Array) => {
        const sum = (id: string) =>
          (model.network.branchesOfPart.get(id) ?? []).reduce((total, branch) => total + amps[branch]!, 0);
        return Math.abs(sum(upper) - sum(lower));
      };
      const known = before.parts.some(({ id }) => id === upper);
      const found = settings.find(
        ({ before: was, after: is }) =>
          apart(afterModel, is.amps) > APART_AMPS && (!known || apart(beforeModel, was.amps) <= APART_AMPS),
      );
      if (!found) return [];
      const amps = apart(afterModel, found.after.amps);
      return [
        {
          kind: 'packs',
          level: 'danger',
          words: `One block of the pack gives ${figure(amps, 'A')} that the others do not, ${settingWords(after, found.at)}: it is emptied alone, and overcharged or reversed after.`,
          at: found.at,
          path: [lower, upper],
          amount: { value: amps, unit: 'A' },
          remedy: 'Take it from the whole pack, through a converter.',
        },
      ];
    }),
    ...after.parts.flatMap((part): Finding[] =>
      part.kind === 'ground' &&
      after.nominalVolts >= PACK_VOLTS &&
      !before.parts.some(({ id }) => id === part.id)
        ? [
            {
              kind: 'packs',
              level: 'danger',
              words: `${part.name} takes the body for the minus of a ${after.nominalVolts} V pack: on such a vehicle the two are often apart.`,
              at: null,
              path: [part.id],
              amount: null,
              remedy:
                'A return of its own to the pack’s minus; the maker’s drawing says whether the body is joined to it.',
            },
          ]
        : [],
    ),
  ],
};
