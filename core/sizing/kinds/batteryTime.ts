/**
 * How long a battery lasts at a draw: usable ampere-hours over ampere. Usable are capacity × health × (charge now − charge that has
 * to be left); a starter battery cranks from about half its charge on.
 */
import {
  BATTERY_KIND_WORDS,
  BATTERY_KINDS,
  type BatteryKind,
  CHARGE_TO_CRANK,
  chargeAtRest,
  restVolts,
} from '../../limits';
import { formatNumber } from '../../quantity';
import type { Curve, Refused, SumResult } from '../explained';
import { ampHours, amps, choice, figure, hours, percent, unknown, volts } from '../fields';
import { sumOf } from '../sum';

export interface Battery {
  readonly capacityAh: number;
  /** Shares of 0 to 1. */
  readonly health: number;
  readonly chargeNow: number;
  readonly chargeLeft: number;
}

/** Ampere-hours that may be taken; nothing where the charge is below what has to be left already. */
export function usableAmpHours({ capacityAh, health, chargeNow, chargeLeft }: Battery): number {
  return capacityAh * health * Math.max(0, chargeNow - chargeLeft);
}

/** Hours that so many ampere-hours last. @example lastsHours(30, 0.25) // 120 */
export function lastsHours(usableAh: number, drawAmps: number): number {
  return usableAh / drawAmps;
}

/** Hours in words, with the days: "120 h, 5 days". */
export function hoursWords(lasts: number): string {
  return lasts < 48 ? figure(lasts, 'h') : `${figure(lasts, 'h')}, ${figure(lasts / 24)} days`;
}

const unit = (share: number) => `${Math.round(100 * share)} %`;

export const batteryTime = sumOf({
  id: 'battery',
  name: 'Battery time',
  also: ['flat', 'reserve', 'standing', 'days', 'amp hours', 'quay'],
  says: 'How many hours and days a battery lasts at a draw, and whether it outlasts the time it stands.',
  fields: {
    draw: amps({ name: 'It draws', typical: 'below 50 mA asleep' }),
    usable: unknown(ampHours({ name: 'Usable', typical: '30 Ah; empty: from the fields below' })),
    capacity: unknown(ampHours({ name: 'Capacity', typical: '70 Ah, printed on it' })),
    health: percent({ name: 'Health', typical: '80 % of what is printed', first: '80' }),
    charge: unknown(percent({ name: 'Charge now', typical: '100 %; empty: from the volts' })),
    rest: unknown(volts({ name: 'Volts at rest', typical: '12.65 V full, hours after charging' })),
    kind: choice(
      { name: 'It is', typical: 'flooded' },
      BATTERY_KINDS.map((id) => ({ id, name: BATTERY_KIND_WORDS[id] })),
    ),
    left: percent({
      name: 'To be left',
      typical: '50 % to crank; 20 % of a leisure battery',
      first: String(100 * CHARGE_TO_CRANK),
    }),
    standing: unknown(hours({ name: 'It stands for', typical: '14 days' })),
  },
  work: (typed): SumResult | Refused => {
    const left = typed.left / 100;
    const health = typed.health / 100;
    let usableAh = typed.usable;
    let chargeNow: number | null = null;
    const steps: { name: string; formula: string; source?: string }[] = [];
    if (usableAh === null) {
      if (typed.capacity === null) return { field: 'usable', message: 'Usable ampere-hours, or a capacity.' };
      const blocks = typed.rest === null ? 1 : Math.max(1, Math.round(typed.rest / 12.4));
      chargeNow =
        typed.charge !== null
          ? typed.charge / 100
          : typed.rest === null
            ? null
            : chargeAtRest(typed.kind, typed.rest / blocks);
      if (chargeNow === null) {
        return {
          field: 'charge',
          message:
            typed.rest !== null
              ? 'The volts of lithium iron phosphate do not tell its charge: type the charge that its own counter shows.'
              : 'How full it is: its charge, or its volts at rest.',
        };
      }
      if (typed.charge === null) {
        steps.push({
          name: 'Charge',
          formula: `${formatNumber(typed.rest!)} V at rest${blocks > 1 ? ` over ${blocks} blocks` : ''} = ${unit(chargeNow)}`,
          source: 'rest volts at 25 °C, rested for hours',
        });
      }
      usableAh = usableAmpHours({ capacityAh: typed.capacity, health, chargeNow, chargeLeft: left });
      steps.push({
        name: 'Usable',
        formula: `${formatNumber(typed.capacity)} Ah × ${unit(health)} × (${unit(chargeNow)} − ${unit(left)}) = ${figure(usableAh, 'Ah')}`,
      });
    }
    const lasts = lastsHours(usableAh, typed.draw);
    const outlasts = typed.standing === null ? null : lasts >= typed.standing;
    steps.push({
      name: 'Lasts',
      formula: `${figure(usableAh, 'Ah')} ÷ ${figure(typed.draw, 'A')} = ${hoursWords(lasts)}`,
    });
    const mayDraw = typed.standing === null ? null : usableAh / typed.standing;
    if (mayDraw !== null) {
      steps.push({
        name: 'May draw',
        formula: `${figure(usableAh, 'Ah')} ÷ ${figure(typed.standing!, 'h')} = ${figure(mayDraw, 'A')}`,
      });
    }
    return {
      answers: [
        {
          id: 'hours',
          name: 'Lasts',
          words: hoursWords(lasts),
          main: true,
          ...(outlasts === null ? {} : { stands: outlasts ? ('good' as const) : ('bad' as const) }),
        },
        ...(outlasts === null
          ? []
          : [
              {
                id: 'outlasts',
                name: `${hoursWords(typed.standing!)} standing`,
                words: outlasts ? 'it lasts' : 'it does not last',
                stands: outlasts ? ('good' as const) : ('bad' as const),
              },
              { id: 'may', name: 'It may draw at most', words: figure(mayDraw!, 'A') },
            ]),
        { id: 'usable', name: 'Usable', words: figure(usableAh, 'Ah') },
      ],
      governs: usableAh === 0 ? 'It stands below what has to be left already: charge it first.' : null,
      steps,
      assumes:
        typed.usable === null
          ? [`${unit(left)} have to be left.`]
          : ['The usable ampere-hours were typed: nothing is kept back from them.'],
      leavesOut: ['Its own discharge, cold, and that a heavy draw gets less out of it.'],
      cautions: [
        ...(outlasts === false
          ? [
              'Hunt the largest draw first; a cut-off saves the battery, and whatever hangs on it is off only then.',
            ]
          : []),
        ...(typed.draw > 5 ? ['At such a draw less than the printed capacity comes out.'] : []),
      ],
      curve: curveOf(
        typed.kind,
        usableAh,
        typed.draw,
        typed.standing,
        typed.capacity === null || chargeNow === null
          ? null
          : { ...typed, capacityAh: typed.capacity * health, chargeNow, left },
      ),
      label: `${hoursWords(lasts)} at ${figure(typed.draw, 'A')}`,
    };
  },
});

function curveOf(
  kind: BatteryKind,
  usableAh: number,
  drawAmps: number,
  standing: number | null,
  known: { readonly capacityAh: number; readonly chargeNow: number; readonly left: number } | null,
): Curve | null {
  const lasts = lastsHours(usableAh, drawAmps);
  if (!(lasts > 0)) return null;
  const end = Math.max(lasts, standing ?? 0) * 1.15;
  const days = end >= 48;
  const scale = days ? 24 : 1;
  const at = Array.from({ length: 25 }, (_, k) => (end * k) / 24);
  const asVolts = known !== null && kind !== 'lithium';
  const chargeAt = (hour: number) => Math.max(0, known!.chargeNow - (drawAmps * hour) / known!.capacityAh);
  const amount = (hour: number) =>
    known === null
      ? Math.max(0, usableAh - drawAmps * hour)
      : asVolts
        ? restVolts(kind, chargeAt(hour))!
        : 100 * chargeAt(hour);
  return {
    title:
      known === null
        ? 'Usable ampere-hours left.'
        : asVolts
          ? 'Volts at rest, falling to what has to be left.'
          : 'Charge left.',
    xName: days ? 'days' : 'h',
    yName: known === null ? 'Ah' : asVolts ? 'V' : '%',
    ...(asVolts ? { close: true as const } : {}),
    points: at.map((hour) => ({ x: hour / scale, y: amount(hour) })),
    limits:
      known === null
        ? []
        : [{ y: asVolts ? restVolts(kind, known.left)! : 100 * known.left, words: 'to be left' }],
    marks: [
      { x: lasts / scale, words: 'empty' },
      ...(standing === null ? [] : [{ x: standing / scale, words: 'back' }]),
    ],
  };
}
