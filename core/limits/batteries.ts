/**
 * Batteries at rest, by kind: the volts of a rested one tell its charge where the kind lets them. Of one block of 12 V; other
 * systems by their blocks.
 */
import { BATTERY_KINDS } from '../format';

export { BATTERY_KINDS };

export type BatteryKind = (typeof BATTERY_KINDS)[number];

export const BATTERY_KIND_WORDS: Readonly<Record<BatteryKind, string>> = {
  flooded: 'Lead, flooded',
  agm: 'Lead, AGM',
  lithium: 'Lithium iron phosphate',
};

/** Flooded, 25 °C, rested for hours: volts of a 12 V block by charge. */
const REST_VOLTS: readonly (readonly [charge: number, volts: number])[] = [
  [0, 11.9],
  [0.25, 12.06],
  [0.5, 12.24],
  [0.75, 12.45],
  [1, 12.65],
];
/** An absorbed-glass-mat block rests so much higher. */
const AGM_ABOVE_VOLTS = 0.15;
/** Charged while it is charging, of a 12 V block. */
export const CHARGING_VOLTS = [13.8, 14.7] as const;
/** A starter battery cranks from about half its charge on. */
export const CHARGE_TO_CRANK = 0.5;
/** A cut-off takes a 12 V battery off between these, after a minute at least, and puts it back from the third on. */
export const CUT_OFF_VOLTS = { least: 11.8, most: 12.2, delaySeconds: 60, reconnect: 12.8 } as const;
/** Below this a cell of lithium iron phosphate is harmed for good, volts; four to a block of 12 V. */
export const LITHIUM_LEAST_CELL_VOLTS = 3;
/** Inner ohms of a healthy starter battery of 60 to 90 Ah. */
export const HEALTHY_INNER_OHMS = 0.006;

/** Volts at rest of a 12 V block with a charge of 0 to 1; null where volts do not tell it. */
export function restVolts(kind: BatteryKind, charge: number): number | null {
  if (kind === 'lithium') return null;
  const upper = REST_VOLTS.findIndex(([at]) => at >= charge);
  const [highCharge, highVolts] = REST_VOLTS[Math.max(1, upper)] ?? REST_VOLTS[REST_VOLTS.length - 1]!;
  const [lowCharge, lowVolts] = REST_VOLTS[Math.max(1, upper) - 1]!;
  const share = (Math.min(1, Math.max(0, charge)) - lowCharge) / (highCharge - lowCharge);
  return lowVolts + share * (highVolts - lowVolts) + (kind === 'agm' ? AGM_ABOVE_VOLTS : 0);
}

/** Charge, 0 to 1, of a rested 12 V block by its volts; null where volts do not tell it. */
export function chargeAtRest(kind: BatteryKind, volts: number): number | null {
  if (kind === 'lithium') return null;
  const own = volts - (kind === 'agm' ? AGM_ABOVE_VOLTS : 0);
  if (own <= REST_VOLTS[0]![1]) return 0;
  const upper = REST_VOLTS.findIndex(([, at]) => at >= own);
  if (upper < 0) return 1;
  const [highCharge, highVolts] = REST_VOLTS[upper]!;
  const [lowCharge, lowVolts] = REST_VOLTS[upper - 1]!;
  return lowCharge + ((own - lowVolts) / (highVolts - lowVolts)) * (highCharge - lowCharge);
}

/** Above this nobody who works on vehicles goes on, volts. */
export const STOP_VOLTS = 60;
