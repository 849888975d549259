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

/** Ampere that a wire of a size carries for good; of a size between two of the table, that of the smaller. */
export function ampacity(sizeMm2: number): number {
  const known = AMPACITY.findLast(([mm2]) => mm2 <= sizeMm2);
  return known ? known[1] : (sizeMm2 / AMPACITY[0]![0]) * AMPACITY[0]![1];
}

/** The smallest size of the table that carries so many ampere; null where none does. */
export function sizeFor(amps: number): number | null {
  return AMPACITY.find(([, carries]) => carries >= amps)?.[0] ?? null;
}
