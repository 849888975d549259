/**
 * Sizes that wires are sold in: cross-sections in mm² (ISO 6722) and American gauges. Ohms of gauges are those of solid
 * wire (ASTM B258, at 20 °C); strands add up to a tenth, and some vehicle gauges are smaller than their number says.
 */
export const STANDARD_MM2 = [0.35, 0.5, 0.75, 1, 1.5, 2.5, 4, 6, 10, 16, 25, 35, 50] as const;

const GAUGES: readonly (readonly [gauge: number, milliohmsPerMetre: number])[] = [
  [20, 33.3],
  [18, 20.9],
  [16, 13.2],
  [14, 8.28],
  [12, 5.21],
  [10, 3.28],
  [8, 2.06],
  [6, 1.3],
  [4, 0.815],
];
/** What strands may add to the ohms of a gauge. */
const STRANDS_SHARE = 1.1;
/** Ideal copper at 20 °C, ohm mm² per metre: the lower bound of any wire. */
export const COPPER_OHM_MM2_PER_METRE = 0.0172;
/** Ohms of copper grow by so much a degree. */
export const COPPER_PER_CELSIUS = 0.0039;

/** Cross-section of a gauge by its definition, mm²: 0.127 mm × 92^((36 − n)/39) across. */
export function gaugeMm2(gauge: number): number {
  const millimetres = 0.127 * 92 ** ((36 - gauge) / 39);
  return (Math.PI / 4) * millimetres ** 2;
}

/** The thinnest gauge that has at most so many ohms a metre, strands included, and at least a cross-section; null where none has. */
export function gaugeFor(ohmsPerMetre: number, leastMm2: number): number | null {
  const found = GAUGES.find(
    ([gauge, milliohms]) => (milliohms * STRANDS_SHARE) / 1000 <= ohmsPerMetre && gaugeMm2(gauge) >= leastMm2,
  );
  return found?.[0] ?? null;
}

/** Ohms a metre of a gauge as its table says it, solid; null for gauges that are not in it. */
export function gaugeOhms(gauge: number): number | null {
  const found = GAUGES.find(([one]) => one === gauge);
  return found ? found[1] / 1000 : null;
}
