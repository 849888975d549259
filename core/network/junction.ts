/**
 * The semiconductor junction: Shockley's law with the little conductance in reverse that circuit simulators
 * give every junction. The series resistance of a diode is a branch of its own.
 */

/** Conductance that a junction keeps in reverse, siemens. */
export const JUNCTION_GMIN = 1e-12;
/** Exponent above which the law goes on as a straight line, so that nothing overflows. */
const LARGEST_EXPONENT = 300;

/** Current of a junction in ampere at a voltage. */
export function junctionAmps(volts: number, saturationAmps: number, thermalVolts: number): number {
  const x = volts / thermalVolts;
  const e = Math.exp(Math.min(x, LARGEST_EXPONENT));
  const over = x > LARGEST_EXPONENT ? x - LARGEST_EXPONENT : 0;
  return saturationAmps * (e * (1 + over) - 1) + JUNCTION_GMIN * volts;
}

/** Volts below which a junction is a straight line to the last digit. */
export function straightBelow(thermalVolts: number): number {
  return -20 * thermalVolts;
}

/** Volts at which the curve of a junction bends most: below it the voltage is iterated, above it the current. */
export function kneeVolts(saturationAmps: number, thermalVolts: number): number {
  return thermalVolts * Math.log(thermalVolts / (Math.SQRT2 * saturationAmps));
}

/**
 * The next guess of Newton's method, kept from overshooting the exponential: above the knee the step is taken
 * in the current, below it in the voltage (Nagel, "SPICE2", 1975, pp. 33-37), and what wants to pass the knee from
 * below comes no further than the knee. `amps` and `siemens` are current and slope at `last`.
 */
export function nextJunctionVolts(
  last: number,
  wanted: number,
  amps: number,
  siemens: number,
  knee: number,
  saturationAmps: number,
  thermalVolts: number,
): number {
  const move = wanted - last;
  // A small step needs no keeping.
  if (Math.abs(move) < 1e-3 * thermalVolts) return wanted;
  if (last >= knee) {
    const flows = amps + siemens * move;
    if (flows <= 0) return Math.min(wanted, 0);
    // Where gmin carries more than the junction the logarithm would overshoot; then the voltage decides.
    return Math.min(thermalVolts * Math.log1p(flows / saturationAmps), Math.max(wanted, knee));
  }
  if (wanted <= knee || Math.abs(move) <= 2 * thermalVolts) return wanted;
  return knee;
}
