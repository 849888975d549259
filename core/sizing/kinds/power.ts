/** Power, current, volts and ohms from any two; cold filaments and held motors apart, where Ohm’s law misleads. */
import { START_FACTOR } from '../../limits';
import { formatNumber } from '../../quantity';
import type { Refused, SumResult } from '../explained';
import { amps, choice, figure, ohms, unknown, volts, watts } from '../fields';
import { sumOf } from '../sum';

export interface Four {
  readonly volts: number;
  readonly amps: number;
  readonly watts: number;
  readonly ohms: number;
}

/** All four from any two, volts, ampere, watts, ohms; null where there are not two. More than two must agree. */
export function fromTwo(known: { readonly [K in keyof Four]: number | null }): Four | null {
  const { volts: u, amps: i, watts: p, ohms: r } = known;
  if (u !== null && i !== null) return { volts: u, amps: i, watts: u * i, ohms: u / i };
  if (u !== null && p !== null) return { volts: u, amps: p / u, watts: p, ohms: (u * u) / p };
  if (u !== null && r !== null) return { volts: u, amps: u / r, watts: (u * u) / r, ohms: r };
  if (i !== null && p !== null) return { volts: p / i, amps: i, watts: p, ohms: p / (i * i) };
  if (i !== null && r !== null) return { volts: i * r, amps: i, watts: i * i * r, ohms: r };
  if (p !== null && r !== null) return { volts: Math.sqrt(p * r), amps: Math.sqrt(p / r), watts: p, ohms: r };
  return null;
}

const WAYS: readonly (readonly [keyof Four, keyof Four, string])[] = [
  ['volts', 'amps', 'P = U × I, R = U ÷ I'],
  ['volts', 'watts', 'I = P ÷ U, R = U² ÷ P'],
  ['volts', 'ohms', 'I = U ÷ R, P = U² ÷ R'],
  ['amps', 'watts', 'U = P ÷ I, R = P ÷ I²'],
  ['amps', 'ohms', 'U = I × R, P = I² × R'],
  ['watts', 'ohms', 'U = √(P × R), I = √(P ÷ R)'],
];
const UNIT = { volts: 'V', amps: 'A', watts: 'W', ohms: 'Ω' } as const;
const NAMES = { volts: 'Volts', amps: 'Current', watts: 'Power', ohms: 'Resistance' } as const;

export const power = sumOf({
  id: 'power',
  name: 'Power, current, ohms',
  also: ['ohm', 'watt', 'amps', 'law'],
  says: 'Any two give the other two; for lamps and motors also what they draw in the first moment.',
  fields: {
    volts: unknown(volts({ name: 'Volts', typical: '12 V' })),
    amps: unknown(amps({ name: 'Current', typical: '8 A' })),
    watts: unknown(watts({ name: 'Power', typical: '96 W' })),
    ohms: unknown(ohms({ name: 'Resistance, working', typical: '1.5 Ω' })),
    what: choice({ name: 'It is', typical: 'a heater or a resistor' }, [
      { id: 'plain', name: 'a heater or resistor' },
      { id: 'lamp', name: 'a filament lamp' },
      { id: 'motor', name: 'a motor or pump' },
      { id: 'electronic', name: 'LED or electronics' },
    ]),
  },
  work: ({ what, ...known }): SumResult | Refused => {
    const said = (Object.keys(NAMES) as (keyof Four)[]).filter((one) => known[one] !== null);
    const four = fromTwo(known);
    if (!four)
      return { field: said[0] === 'volts' ? 'amps' : 'volts', message: 'Any two of the four are needed.' };
    const against = said.find((one) => Math.abs(known[one]! - four[one]) > 0.02 * four[one]);
    if (against) {
      return {
        field: against,
        message: `Does not fit the others: they make ${figure(four[against], UNIT[against])}. Leave one out.`,
      };
    }
    const way = WAYS.find(([x, y]) => said.includes(x) && said.includes(y))!;
    const factor = what === 'lamp' ? START_FACTOR.lamp! : what === 'motor' ? START_FACTOR.motor! : null;
    const asked = (['amps', 'watts', 'volts', 'ohms'] as const).filter((one) => !way.includes(one));
    return {
      answers: [
        ...asked.map((one, index) => ({
          id: one,
          name: NAMES[one],
          words: figure(four[one], UNIT[one]),
          ...(index === 0 ? { main: true as const } : {}),
        })),
        ...(factor === null
          ? []
          : [
              {
                id: 'start',
                name: what === 'lamp' ? 'Cold, in the first moment' : 'Held, or starting',
                words: `about ${figure(four.amps * factor, 'A')} (${what === 'lamp' ? '8 to 14' : '3 to 6'} times)`,
              },
              {
                id: 'cold',
                name: what === 'lamp' ? 'An ohmmeter shows, cold' : 'An ohmmeter shows, at rest',
                words:
                  what === 'lamp'
                    ? `about ${figure(four.ohms / factor, 'Ω')}`
                    : `about ${figure(four.ohms / factor, 'Ω')}, its stall resistance`,
              },
            ]),
      ],
      governs: null,
      steps: [
        {
          name: `From ${NAMES[way[0]].toLowerCase()} and ${NAMES[way[1]].toLowerCase()}`,
          formula: `${way[2]}: ${said
            .slice(0, 2)
            .map((one) => `${formatNumber(known[one]!)} ${UNIT[one]}`)
            .join(', ')} give ${asked.map((one) => figure(four[one], UNIT[one])).join(' and ')}`,
          source: 'Ohm’s and Joule’s laws',
        },
      ],
      assumes: ['Direct current, at its working temperature.'],
      leavesOut: [],
      cautions:
        what === 'electronic'
          ? ['LEDs and electronics do not follow ohms: judge them by volts and current alone.']
          : [],
      curve: null,
      label: `${figure(four.watts, 'W')}, ${figure(four.amps, 'A')} at ${figure(four.volts, 'V')}`,
    };
  },
});
