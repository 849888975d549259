/** What hand instruments show at an operating point, and how far they can be trusted. */

/** A digital meter's error on volts: 0.5 % and two digits of 10 mV, as one standard deviation. */
export function voltmeterError(volts: number): number {
  return Math.abs(volts) * 0.005 + 0.02;
}

/** A 4 W filament test lamp on its own nominal voltage, ohms. */
export function testLampOhms(nominalVolts: number): number {
  return (nominalVolts * nominalVolts) / 4;
}

/** The 21 W lamp that stands in for a fuse while a short is looked for, ohms. */
export function fuseLampOhms(nominalVolts: number): number {
  return (nominalVolts * nominalVolts) / 21;
}

/** Fractions of the supply above which a test lamp is lit, and below which it is off. */
export const LAMP_LIT = 0.8;
export const LAMP_DIM = 0.2;

export const LAMP_STATES = ['lit', 'dim', 'off'] as const;
export const FUNCTION_STATES = ['works', 'weak', 'dead'] as const;
export const CONTINUITY_STATES = ['conducts', 'open'] as const;

/** Standard normal distribution function (Abramowitz and Stegun 7.1.26, error below 1.5e-7). */
export function normalBelow(x: number): number {
  const t = 1 / (1 + 0.3275911 * (Math.abs(x) / Math.SQRT2));
  const y =
    1 -
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) *
      t *
      Math.exp((-x * x) / 2);
  return x >= 0 ? 0.5 * (1 + y) : 0.5 * (1 - y);
}

/** Chances of lit, dim, off for a lamp at this fraction of the supply; the eye blurs the limits. */
export function lampChances(fraction: number): [number, number, number] {
  return threeWay(fraction, LAMP_LIT, LAMP_DIM, 0.05);
}

/** Chances of works, weak, dead for a load at this fraction of its nominal current. */
export function functionChances(
  fraction: number,
  weakBelow: number,
  deadBelow: number,
): [number, number, number] {
  return threeWay(fraction, weakBelow, deadBelow, 0.06);
}

function threeWay(fraction: number, upper: number, lower: number, blur: number): [number, number, number] {
  const above = normalBelow((fraction - upper) / blur);
  const below = normalBelow((lower - fraction) / blur);
  return [above, Math.max(0, 1 - above - below), below];
}
