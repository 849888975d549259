/** Where a low-voltage cut-off is set: it guards a battery, it is no key. */
import {
  BATTERY_KIND_WORDS,
  BATTERY_KINDS,
  type BatteryKind,
  CUT_OFF_VOLTS,
  HEALTHY_INNER_OHMS,
  LITHIUM_LEAST_CELL_VOLTS,
  restVolts,
} from '../../limits';
import { formatNumber } from '../../quantity';
import type { SumResult } from '../explained';
import { amps, blocks, choice, percent } from '../fields';
import { sumOf } from '../sum';

export interface CutOffSet {
  /** Volts of the whole battery. */
  readonly disconnectVolts: number;
  readonly reconnectVolts: number;
  readonly delaySeconds: number;
  /** What the reserve would ask for, before the usual bounds; null where volts do not tell it. */
  readonly byReserveVolts: number | null;
}

/** Volts and delay of a cut-off over so many 12 V blocks; `reserve` is the charge to be left, 0 to 1. */
export function cutOffFor(kind: BatteryKind, reserve: number, drawAmps: number, count = 1): CutOffSet {
  const { least, most, delaySeconds, reconnect } = CUT_OFF_VOLTS;
  const rest = restVolts(kind, reserve);
  const byReserveVolts = rest === null ? null : rest - drawAmps * HEALTHY_INNER_OHMS;
  const each =
    byReserveVolts === null ? 4 * LITHIUM_LEAST_CELL_VOLTS : Math.min(most, Math.max(least, byReserveVolts));
  // Heavy loads pull the volts down while they start: the wait grows with them.
  return {
    disconnectVolts: Number((each * count).toFixed(2)),
    reconnectVolts: Number((reconnect * count).toFixed(2)),
    delaySeconds: drawAmps > 10 ? 3 * delaySeconds : delaySeconds,
    byReserveVolts: byReserveVolts === null ? null : byReserveVolts * count,
  };
}

export const cutOff = sumOf({
  id: 'cut-off',
  name: 'Low-voltage cut-off',
  also: ['lvd', 'undervoltage', 'battery guard', 'disconnect', 'protector'],
  says: 'At which volts a cut-off takes the load away and gives it back, and how long it waits.',
  fields: {
    kind: choice(
      { name: 'Battery', typical: 'flooded' },
      BATTERY_KINDS.map((id) => ({ id, name: BATTERY_KIND_WORDS[id] })),
    ),
    reserve: percent({ name: 'To be left', typical: '50 % to crank', first: '50' }),
    draw: amps({ name: 'Load behind it', typical: '5 A' }),
    blocks: blocks({ name: 'Blocks of 12 V', typical: '1; 2 on 24 V', first: '1' }),
  },
  work: (typed): SumResult => {
    const set = cutOffFor(typed.kind, typed.reserve / 100, typed.draw, typed.blocks);
    const { least, most } = CUT_OFF_VOLTS;
    const bounded = set.byReserveVolts !== null && Math.abs(set.byReserveVolts - set.disconnectVolts) > 0.005;
    return {
      answers: [
        { id: 'off', name: 'Off below', words: figure4(set.disconnectVolts), main: true },
        { id: 'on', name: 'On again above', words: figure4(set.reconnectVolts) },
        { id: 'delay', name: 'After', words: `${set.delaySeconds} s below it` },
      ],
      governs: bounded
        ? `The reserve alone would ask for ${figure4(set.byReserveVolts!)}; cut-offs are set between ${figure4(least * typed.blocks)} and ${figure4(most * typed.blocks)}, or they go off at every start.`
        : null,
      steps: [
        ...(set.byReserveVolts === null
          ? [
              {
                name: 'Off',
                formula: `4 cells × ${LITHIUM_LEAST_CELL_VOLTS} V × ${typed.blocks} = ${figure4(set.disconnectVolts)}`,
                source: 'saves the cells; tells no charge',
              },
            ]
          : [
              {
                name: 'By the reserve',
                formula: `(rest volts at ${formatNumber(typed.reserve)} % − ${formatNumber(typed.draw)} A × ${HEALTHY_INNER_OHMS * 1000} mΩ) × ${typed.blocks} = ${figure4(set.byReserveVolts)}`,
                source: 'rest volts at 25 °C, inner resistance of a healthy battery',
              },
            ]),
        {
          name: 'On again',
          formula: `${CUT_OFF_VOLTS.reconnect} V × ${typed.blocks} = ${figure4(set.reconnectVolts)}: only while something charges`,
        },
      ],
      assumes: ['Read at the battery’s own posts; on long wires it reads too low.'],
      leavesOut: ['The inner resistance of a worn battery: it goes off sooner then.'],
      cautions: [
        'It guards the battery and is no key: what must be off when parked stays on until the battery is low.',
        ...(typed.kind === 'lithium'
          ? ['The volts of lithium iron phosphate do not tell its charge: use its own counter for a reserve.']
          : []),
      ],
      curve: null,
      label: `off below ${figure4(set.disconnectVolts)}, on above ${figure4(set.reconnectVolts)}`,
    };
  },
});

const figure4 = (value: number) => `${formatNumber(Number(value.toFixed(2)))} V`;
