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
/** Ratio of current to rating from which a blade fuse opens, and a breaker trips, within minutes (ISO 8820-3, 135 %). */
export const OPENS_FROM = 1.35;
/** Share of its rating that a fuse should carry for good. */
export const RUNNING_SHARE = 0.8;
/** The same in a hot engine bay. */
export const HOT_RUNNING_SHARE = 0.7;
/** A vehicle asleep draws less than this, ampere, after a wait of 10 to 60 minutes. */
export const SLEEP_DRAW_AMPS = 0.05;
export const SLEEP_WAIT_MINUTES = 60;
export const BREAKER_OHMS = 0.005;
/**
 * A resettable fuse (a polymer that turns from conductor to resistor when it gets hot) loses so many volts at the current
 * that it holds, trips from so many times that current, and then lets through what keeps it hot. Typical of data sheets.
 */
export const POLYFUSE_DROP_VOLTS = 0.15;
export const POLYFUSE_TRIPS_AT = 2;
export const POLYFUSE_HOT_WATTS = 1.5;
/** A resting battery takes a charge less willingly than it gives current. */
export const BATTERY_CHARGE_OHMS = 0.15;
/** Alternators and chargers hold about 14.4 V on a 12 V system, within 13.8 to 14.7 V. */
export const CHARGING_EMF_PER_NOMINAL = 14.4 / 12;
export const CHARGING_INNER_OHMS = 0.005;
export const SUPPRESSOR_OHMS_12V = 680;
export const SOLENOID_COIL_OHMS_12V = 12;
export const SOLENOID_CONTACT_OHMS = 0.0005;
export const LATCHING_COIL_OHMS_12V = 60;
/** Electronics inside a flasher or cut-off, between its feed and its earth. */
export const ELECTRONICS_OHMS_12V = 2000;
/** A flasher with an earth works from this share of the nominal volts. */
export const FLASHER_WORKS_PER_NOMINAL = 8 / 12;
export const CUT_OFF_DISCONNECT_PER_NOMINAL = 12 / 12;
export const CUT_OFF_RECONNECT_PER_NOMINAL = 12.8 / 12;
export const CUT_OFF_OHMS = 0.005;
export const MODULE_OUTPUT_OHMS = 0.03;
export const MODULE_IDLE_AMPS = 0.02;
export const MODULE_INPUT_OHMS = 10_000;
/** A module works from this share of the nominal volts, and gives up below the other. */
export const MODULE_WORKS_PER_NOMINAL = 6 / 12;
export const MODULE_FAILS_PER_NOMINAL = 5 / 12;
/** An input counts as high above, and as low below, these shares of the nominal volts. */
export const INPUT_HIGH_PER_NOMINAL = 7 / 12;
export const INPUT_LOW_PER_NOMINAL = 5 / 12;
export const SOCKET_OHMS = 0.01;
/** Three white diodes and their resistor on 12 V: this share of the nominal volts stands across the diodes. */
export const LED_FORWARD_PER_NOMINAL = 0.7;
/** No single light-emitting diode takes more volts; a lamp of more has several in series. */
export const LED_SINGLE_VOLTS = 3;
/** Emission coefficient of one light-emitting diode. */
export const LED_EMISSION = 2;
/**
 * Current at the first moment, or with the shaft held, as a multiple of the running current: a cold filament
 * has 1/8 to 1/14 of its hot resistance, a motor draws 3 to 6 times its running current.
 */
export const START_FACTOR: Readonly<Record<string, number>> = {
  lamp: 10,
  motor: 4.5,
  pump: 4.5,
  heater: 1.2,
};
/** A wire whose length or size nobody knows: three metres of 1.5 mm². */
export const UNKNOWN_WIRE_METRES = 3;
export const UNKNOWN_WIRE_MM2 = 1.5;
/** A healthy rested battery, volts per volt of nominal (12.6 V on a 12 V system). */
export const EMF_PER_NOMINAL = 12.6 / 12;
export const RELAY_COIL_OHMS_12V = 85;
export const RELAY_PULL_IN_PER_NOMINAL = 6.5 / 12;
export const RELAY_DROP_OUT_PER_NOMINAL = 2.5 / 12;
/** A fuse whose rating nobody has read has the resistance of this one. */
export const UNKNOWN_FUSE_AMPS = 15;
/** No plug-in fuse of a branch circuit holds more: what draws more than this opens it, whatever its rating. */
export const UNKNOWN_FUSE_HOLDS_AMPS = 60;
/** Relative spread of a load or fuse that is guessed: from a third of it to three times as much. */
export const GUESS_TOLERANCE = 0.7;
/** Of a wire that is guessed, the current through it being guessed as well. */
export const WIRE_GUESS_TOLERANCE = 2;
/** Loads whose rating nobody knows count as this many watts. */
export const UNKNOWN_LOAD_WATTS = 21;
/** Fractions of the nominal current below which a load counts as weak and as dead. */
export const WEAK_BELOW = 0.8;
export const DEAD_BELOW = 0.25;
/** kT/q at 27 °C, the temperature that circuit simulators assume, volts. */
export const THERMAL_VOLTS = 0.0258649;
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
