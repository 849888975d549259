/**
 * What a wire carries for good, ampere by cross-section in mm²: thin-wall single in free air at 30 °C, insulation of 85 to
 * 90 °C, continuous. Bundled or hot it is 0.7 of that. Tables for starter cable give more, for short times only.
 */
const AMPACITY: readonly (readonly [mm2: number, amps: number])[] = [
  [0.35, 7],
  [0.5, 11],
  [0.75, 14],
  [1, 16.5],
  [1.5, 21],
  [2.5, 29],
  [4, 39],
  [6, 50],
  [10, 70],
  [16, 100],
  [25, 140],
  [35, 185],
  [50, 230],
];

/** Where wires lie in a bundle or in the heat of an engine, they carry this share of it. */
const BUNDLED_SHARE = 0.7;
/** Ampere of the table hold at this temperature around the wire, for insulation that stands the other, °C. */
const AMPACITY_AMBIENT_CELSIUS = 30;
export const INSULATION_CELSIUS = 85;

/** Ampere that a wire of a size carries for good; of a size between two of the table, that of the smaller. */
export function ampacity(sizeMm2: number): number {
  const known = AMPACITY.findLast(([mm2]) => mm2 <= sizeMm2);
  return known ? known[1] : (sizeMm2 / AMPACITY[0]![0]) * AMPACITY[0]![1];
}

/** The smallest size of the table that carries so many ampere; null where none does. */
export function sizeFor(amps: number): number | null {
  return AMPACITY.find(([, carries]) => carries >= amps)?.[0] ?? null;
}

/**
 * Ampere that a wire carries for good where it lies: 0.7 of the table where it is bundled or hot, and less with the warmth
 * around it, by the root of what is left up to what its insulation stands (the heat goes with the square of the current).
 * Nothing from there on.
 */
export function deratedAmpacity(
  sizeMm2: number,
  {
    bundled = false,
    ambientCelsius = AMPACITY_AMBIENT_CELSIUS,
  }: { bundled?: boolean; ambientCelsius?: number },
): number {
  const left =
    Math.max(0, INSULATION_CELSIUS - ambientCelsius) / (INSULATION_CELSIUS - AMPACITY_AMBIENT_CELSIUS);
  return ampacity(sizeMm2) * (bundled ? BUNDLED_SHARE : 1) * Math.sqrt(Math.min(1, left));
}
