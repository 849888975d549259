/** Several blocks in series: what the pack is, rests and charges at, how far its blocks lie apart, and which 12 V rules end. */
import { BLADE_VOLTS, CHARGING_VOLTS, restVolts, STOP_VOLTS } from '../../limits';
import { formatNumber } from '../../quantity';
import type { Refused, SumResult } from '../explained';
import { blocks, choice, figure, list, type ReadField, volts } from '../fields';
import { sumOf } from '../sum';

/** Blocks of one pack that rest further apart than this share of their nominal volts do not belong together. */
const SPREAD_SHARE = 0.2 / 12;

export interface Pack {
  readonly nominalVolts: number;
  readonly emptyVolts: number;
  readonly fullVolts: number;
  readonly chargingVolts: readonly [number, number];
  /** Largest less smallest of the readings, volts; null where fewer than two were read. */
  readonly spreadVolts: number | null;
  /** The block that lies furthest from the mean, counted from one; null where none stands out. */
  readonly odd: number | null;
}

export function packOf(count: number, blockVolts: number, readings: readonly number[]): Pack {
  const scale = (blockVolts / 12) * count;
  const spreadVolts = readings.length < 2 ? null : Math.max(...readings) - Math.min(...readings);
  const mean = readings.reduce((sum, one) => sum + one, 0) / Math.max(1, readings.length);
  const far = readings.reduce(
    (most, one, k) => (Math.abs(one - mean) > Math.abs(readings[most]! - mean) ? k : most),
    0,
  );
  return {
    nominalVolts: blockVolts * count,
    emptyVolts: restVolts('flooded', 0)! * scale,
    fullVolts: restVolts('flooded', 1)! * scale,
    chargingVolts: [CHARGING_VOLTS[0] * scale, CHARGING_VOLTS[1] * scale],
    spreadVolts,
    odd: spreadVolts !== null && spreadVolts > SPREAD_SHARE * blockVolts ? far + 1 : null,
  };
}

const readVolts = (line: string): ReadField<number> => volts({ name: 'Volts', typical: '' }).read(line);

export const pack = sumOf({
  id: 'pack',
  name: 'Battery pack',
  also: ['series', '24', '36', '48', 'blocks', 'barrow'],
  says: 'Nominal, resting and full volts of blocks in series, how alike they are, and what no longer holds.',
  fields: {
    count: blocks({ name: 'Blocks', typical: '4' }),
    each: choice({ name: 'Each of', typical: '12 V', first: '12' }, [
      { id: '6', name: '6 V' },
      { id: '8', name: '8 V' },
      { id: '12', name: '12 V' },
    ]),
    readings: list(
      {
        name: 'Read at rest, block by block',
        typical: '12.6 · 12.5 · 11.9 · 12.6; empty: not read',
        least: 0,
      },
      readVolts,
    ),
  },
  work: (typed): SumResult | Refused => {
    const each = Number(typed.each);
    if (typed.readings.length > typed.count) {
      return { field: 'readings', message: `${typed.readings.length} readings for ${typed.count} blocks.` };
    }
    const found = packOf(typed.count, each, typed.readings);
    const total = typed.readings.reduce((sum, one) => sum + one, 0);
    return {
      answers: [
        { id: 'nominal', name: 'Pack', words: figure(found.nominalVolts, 'V'), main: true },
        {
          id: 'rest',
          name: 'Resting, empty to full',
          words: `${figure(found.emptyVolts, 'V')} to ${figure(found.fullVolts, 'V')}`,
        },
        {
          id: 'charging',
          name: 'While charging',
          words: `${figure(found.chargingVolts[0], 'V')} to ${figure(found.chargingVolts[1], 'V')}`,
        },
        ...(found.spreadVolts === null
          ? []
          : [
              {
                id: 'spread',
                name: 'Blocks lie apart',
                words: `${figure(found.spreadVolts, 'V')}${found.odd === null ? '' : `, block ${found.odd} most`}`,
                stands: found.odd === null ? ('good' as const) : ('bad' as const),
              },
            ]),
      ],
      governs:
        found.odd === null
          ? null
          : `Block ${found.odd} does not go with the others: charge each alone, rest, read again before anything is bought.`,
      steps: [
        { name: 'Nominal', formula: `${typed.count} × ${each} V = ${figure(found.nominalVolts, 'V')}` },
        {
          name: 'Full',
          formula: `${typed.count} × ${figure(found.fullVolts / typed.count, 'V')} = ${figure(found.fullVolts, 'V')}`,
          source: 'lead, flooded, 25 °C, rested',
        },
        ...(typed.readings.length === typed.count
          ? [
              {
                name: 'Read together',
                formula: `${typed.readings.map((one) => formatNumber(one)).join(' + ')} = ${figure(total, 'V')}`,
              },
            ]
          : []),
      ],
      assumes: ['Lead blocks of one age in series.'],
      leavesOut: ['Lithium packs: their own management decides.'],
      cautions: [
        ...(found.nominalVolts > 12
          ? ['Fuses, relays, switches, lamps and testers have to be made for the highest volts of the pack.']
          : []),
        ...(found.chargingVolts[1] > BLADE_VOLTS
          ? [`Common blade fuses are made for ${BLADE_VOLTS} V: not here.`]
          : []),
        ...(found.chargingVolts[1] > STOP_VOLTS
          ? [`Above ${STOP_VOLTS} V the work ends here: that is for those who are licensed for it.`]
          : []),
        ...(typed.count > 1
          ? [
              'Nothing is fed from one block alone: it is emptied before the others. The pack’s minus may not be the chassis.',
            ]
          : []),
      ],
      curve: null,
      label: `${figure(found.nominalVolts, 'V')} pack of ${typed.count}`,
    };
  },
});
