/**
 * Typical values where a circuit file gives none. Makers' data wins wherever it exists: every one of these
 * can be written into the part instead.
 */

/** Cold resistance of blade fuses (regular and mini), milliohm by rating in ampere, within 15 %. */
const FUSE_MILLIOHMS: readonly (readonly [amps: number, milliohms: number])[] = [
  [2, 53],
  [3, 31],
  [4, 23],
  [5, 17.5],
  [7.5, 10.8],
  [10, 7.6],
  [15, 4.7],
  [20, 3.3],
  [25, 2.5],
  [30, 2.0],
  [40, 1.4],
];

/** Stranded copper at 20 °C, milliohm per metre by cross-section in mm² (maximum values). */
const WIRE_MILLIOHMS_PER_METRE: readonly (readonly [mm2: number, milliohms: number])[] = [
  [0.35, 52],
  [0.5, 37.1],
  [0.75, 24.7],
  [1, 18.5],
  [1.5, 12.7],
  [2.5, 7.6],
  [4, 4.71],
  [6, 3.14],
  [10, 1.82],
  [16, 1.16],
  [25, 0.743],
  [35, 0.527],
  [50, 0.368],
];

export const CONNECTOR_OHMS = 0.003;
export const SPLICE_LEG_OHMS = 0.001;
export const GROUND_OHMS = 0.003;
export const SWITCH_OHMS = 0.01;
export const RELAY_CONTACT_OHMS = 0.01;
export const BATTERY_INNER_OHMS = 0.012;
export const FUSIBLE_LINK_OHMS = 0.002;
/** A wire whose length or size nobody knows: three metres of 1.5 mm². */
export const UNKNOWN_WIRE_METRES = 3;
export const UNKNOWN_WIRE_MM2 = 1.5;
/** A healthy rested battery, volts per volt of nominal (12.6 V on a 12 V system). */
export const EMF_PER_NOMINAL = 12.6 / 12;
export const RELAY_COIL_OHMS_12V = 85;
export const RELAY_PULL_IN_PER_NOMINAL = 6.5 / 12;
export const RELAY_DROP_OUT_PER_NOMINAL = 2.5 / 12;
/** Loads whose rating nobody knows count as this many watts. */
export const UNKNOWN_LOAD_WATTS = 21;
/** Fractions of the nominal current below which a load counts as weak and as dead. */
export const WEAK_BELOW = 0.8;
export const DEAD_BELOW = 0.25;
/** Power diode: 0.6 to 0.8 V at one ampere. */
export const DIODE = { saturationAmps: 2e-9, emission: 1.5, seriesOhms: 0.03 } as const;

function interpolateLogLog(table: readonly (readonly [number, number])[], x: number): number {
  const first = table[0]!;
  const last = table[table.length - 1]!;
  // Outside the table resistance goes as 1/x, the law of a conductor's cross-section.
  if (x <= first[0]) return (first[1] * first[0]) / x;
  if (x >= last[0]) return (last[1] * last[0]) / x;
  const upper = table.findIndex(([at]) => at >= x);
  const [x0, y0] = table[upper - 1]!;
  const [x1, y1] = table[upper]!;
  const share = Math.log(x / x0) / Math.log(x1 / x0);
  return y0 * (y1 / y0) ** share;
}

/** Cold resistance of a fuse in ohms, from its rating in ampere; log-log between the tabled ratings. */
export function fuseColdOhms(ratingAmps: number): number {
  return interpolateLogLog(FUSE_MILLIOHMS, ratingAmps) / 1000;
}

/** Resistance of a copper run in ohms: metres one way, cross-section in mm², at 20 °C. */
export function wireOhms(lengthMetres: number, sizeMm2: number): number {
  return (interpolateLogLog(WIRE_MILLIOHMS_PER_METRE, sizeMm2) * lengthMetres) / 1000;
}
