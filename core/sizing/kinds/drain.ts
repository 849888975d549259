/** What draws while a vehicle is parked: the list, its sum, the largest first, and how long a battery stands it. */
import { SLEEP_DRAW_AMPS } from '../../limits';
import { formatNumber } from '../../quantity';
import type { SumResult } from '../explained';
import {
  ampHours,
  figure,
  hours,
  type Load,
  list,
  loadAmps,
  named,
  type ReadField,
  readLoad,
  unknown,
  volts,
} from '../fields';
import { sumOf } from '../sum';
import { hoursWords, lastsHours } from './batteryTime';

/** One thing that draws; `share` of the time it is on. */
export interface Draw {
  readonly name: string;
  readonly load: Load;
  readonly share: number;
}

/** "Clock 8 mA", "Fridge 4 A 30 %", "3 x 5 mA trackers". */
export function readDraw(line: string): ReadField<Draw> {
  const part = /\s+([\d.,]+)\s*%/.exec(line);
  const share = part ? Number(part[1]!.replace(',', '.')) / 100 : 1;
  if (!(share > 0 && share <= 1))
    return { ok: false, message: 'its share of the time lies above 0 and up to 100 %.' };
  const read = named(part ? line.replace(part[0], '') : line, readLoad);
  return read.ok
    ? { ok: true, value: { name: read.value.name || 'without a name', load: read.value.value, share } }
    : read;
}

export interface Drawn {
  readonly name: string;
  readonly amps: number;
  /** Of all together, 0 to 1. */
  readonly share: number;
}

/** The draws as ampere over time, the largest first, and their sum. */
export function drainOf(
  draws: readonly Draw[],
  systemVolts: number,
): { readonly draws: readonly Drawn[]; readonly totalAmps: number } {
  const each = draws.map((one) => ({
    name: one.name,
    amps: loadAmps(one.load, systemVolts).amps * one.share,
  }));
  const totalAmps = each.reduce((sum, one) => sum + one.amps, 0);
  return {
    draws: each.map((one) => ({ ...one, share: one.amps / totalAmps })).sort((x, y) => y.amps - x.amps),
    totalAmps,
  };
}

export const drain = sumOf({
  id: 'drain',
  name: 'Parked drain',
  also: ['parasitic', 'sleep current', 'flat battery', 'draw', 'quiescent'],
  says: 'What draws while it stands, which to hunt first, and for how many days the battery stands it.',
  fields: {
    draws: list(
      { name: 'What draws', typical: 'Tracker 8 mA · Fridge 4 A 30 % · 3 x 5 mA sensors' },
      readDraw,
    ),
    volts: volts({ name: 'On a system of', typical: '12 V', first: '12' }),
    usable: unknown(ampHours({ name: 'Usable', typical: '30 Ah of a starter battery; empty: not known' })),
    standing: unknown(hours({ name: 'It stands for', typical: '14 days' })),
  },
  work: (typed): SumResult => {
    const { draws, totalAmps } = drainOf(typed.draws, typed.volts);
    const most = draws[0]!;
    const lasts = typed.usable === null ? null : lastsHours(typed.usable, totalAmps);
    const outlasts = lasts === null || typed.standing === null ? null : lasts >= typed.standing;
    const without =
      lasts === null || draws.length < 2 ? null : lastsHours(typed.usable!, totalAmps - most.amps);
    return {
      answers: [
        {
          id: 'total',
          name: 'Draws in all',
          words: figure(totalAmps, 'A'),
          main: true,
          stands: totalAmps <= SLEEP_DRAW_AMPS ? 'good' : 'watch',
        },
        {
          id: 'first',
          name: 'Hunt first',
          words: `${most.name}: ${figure(most.amps, 'A')}, ${Math.round(100 * most.share)} % of it`,
        },
        ...(lasts === null
          ? []
          : [
              {
                id: 'lasts',
                name: 'The battery lasts',
                words: hoursWords(lasts),
                ...(outlasts === null ? {} : { stands: outlasts ? ('good' as const) : ('bad' as const) }),
              },
            ]),
        ...(outlasts === null
          ? []
          : [
              {
                id: 'outlasts',
                name: `${hoursWords(typed.standing!)} standing`,
                words: outlasts ? 'it lasts' : 'it does not last',
              },
            ]),
        ...(without === null
          ? []
          : [{ id: 'without', name: `Without ${most.name}`, words: hoursWords(without) }]),
      ],
      governs:
        totalAmps <= SLEEP_DRAW_AMPS
          ? `Within the usual ${figure(SLEEP_DRAW_AMPS, 'A')} of a vehicle asleep.`
          : `More than the usual ${figure(SLEEP_DRAW_AMPS, 'A')} of a vehicle asleep.`,
      steps: [
        ...draws.map((one) => ({
          name: one.name,
          formula: `${figure(one.amps, 'A')} = ${Math.round(100 * one.share)} %`,
        })),
        ...(lasts === null
          ? []
          : [
              {
                name: 'Lasts',
                formula: `${formatNumber(typed.usable!)} Ah ÷ ${figure(totalAmps, 'A')} = ${hoursWords(lasts)}`,
              },
            ]),
      ],
      assumes: ['Each draws the same all the time, or its share of it.'],
      leavesOut: ['What is not on the list: read the whole with a clamp before it is believed.'],
      cautions:
        outlasts === false ? ['A cut-off would save the battery; what hangs on it is on until then.'] : [],
      curve: null,
      label: `${figure(totalAmps, 'A')} parked, most by ${most.name}`,
    };
  },
});
