/** What a meter shows on a point that hangs free. */
import { voltmeterError } from '../../limits';
import { density } from './likelihood';
import { FLOATING } from './voltsPrediction';

/** It shows the same again, to the error of the meter, unless something near it changed. */
const HANGS_ON = 0.94;

/** Density of what a point that hangs shows when it is read again. */
export function again(before: number, volts: number, fresh: number): number {
  return HANGS_ON * density(volts, before, voltmeterError(before)) + (1 - HANGS_ON) * fresh;
}

/** From this share of the supply on a feed leaks to a point that hangs: by how much nobody drew. */
const LEAKS = 0.1;

/**
 * Density of what a meter shows on a point that hangs, where the map has it at `shown`. Behind diodes of a lamp what
 * leaks beside them lifts it further, up to the supply.
 */
export function hanging(volts: number, shown: number, emfVolts: number, flat: number): number {
  const { nothing, nothingSpread, little, littleSpread, anything } = FLOATING;
  if (shown < LEAKS * emfVolts) {
    return (
      nothing * density(volts, shown, nothingSpread) +
      little * density(volts, shown, littleSpread) +
      anything * flat
    );
  }
  const above = volts > shown && volts < 1.05 * emfVolts ? 1 / (1.05 * emfVolts - shown) : 0;
  return (
    (nothing / 2) * above + (nothing / 2 + little) * density(volts, shown, littleSpread) + anything * flat
  );
}
