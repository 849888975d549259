/** A change of how a pack is charged: what has to be known before a receptacle is released. */

import type { CircuitFile } from '../../format';
import { BATTERY_KIND_WORDS } from '../../limits';
import { figure } from '../../sizing';
import { patchBetween, touchedParts } from '../patch';
import type { Finding, FindingKind } from './finding';

const CHARGES = /\bcharg(er|ing|e)\b|\binlet\b|\breceptacle\b/i;
/** A charger is within so much of the pack’s nominal volts. */
const NEAR_SHARE = 0.25;

/** Parts that charge, or that something which charges is plugged into. */
export function chargingParts(circuit: CircuitFile): readonly string[] {
  return circuit.parts.flatMap((part) =>
    (part.kind === 'charging-source' && part.active === 'always') ||
    ((part.kind === 'socket' || part.kind === 'connector' || part.kind === 'module') &&
      CHARGES.test(part.name))
      ? [part.id]
      : [],
  );
}

export const charging: FindingKind = {
  name: 'charging',
  find: ({ before, after, facts }) => {
    const touched = new Set(touchedParts(patchBetween(before, after)));
    const concerned = [...new Set([...chargingParts(before), ...chargingParts(after)])].filter((id) =>
      touched.has(id),
    );
    const [first] = concerned;
    if (first === undefined) return [];
    const one = (words: string, remedy: string, key: string): Finding => ({
      kind: 'charging',
      level: 'danger',
      words,
      at: null,
      path: [first, key],
      amount: null,
      remedy,
    });
    const name = [...after.parts, ...before.parts].find(({ id }) => id === first)?.name ?? first;
    const { charging: said } = facts;
    if (!said) {
      return [
        one(
          `${name} is charged through: which build it is, which charger by volts and battery, and what stands on the receptacle has to be said before it is released.`,
          'Say all four in the plan.',
          'facts',
        ),
      ];
    }
    const far = Math.abs(said.chargerVolts - after.nominalVolts) > NEAR_SHARE * after.nominalVolts;
    return [
      ...(far
        ? [
            one(
              `A charger of ${figure(said.chargerVolts, 'V')} (${BATTERY_KIND_WORDS[said.battery].toLowerCase()}) does not belong to a pack of ${after.nominalVolts} V.`,
              'The charger that the maker of the battery names.',
              'volts',
            ),
          ]
        : []),
      ...(said.lockedOut
        ? []
        : [
            one(
              'The charger that was there can still be switched on beside the new way.',
              'Lock it out at its plug, and label it.',
              'locked',
            ),
          ]),
    ];
  },
};
