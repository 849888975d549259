/**
 * The numbers that a job's entries may hold, once: the schema is made from them, and the forms read by them, so that
 * nothing is taken in one place and refused in another.
 */
import type { NumberRange } from '../quantity';

/** Nominal voltages of systems within scope; the file schema and the database hold the same. */
export const NOMINAL_VOLTS = [6, 12, 24, 36, 48] as const;

export const BOUNDS = {
  /** Watts of a portable appliance. */
  applianceWatts: { above: 0, most: 20_000, unit: 'W' },
  /** Fuses that an appliance took with it. */
  fusesTaken: { least: 0, most: 20, whole: true },
  odometerKm: { least: 0, most: 5_000_000, whole: true, unit: 'km' },
  /** Work on one repair: a week without a break is more than anybody does. */
  repairMinutes: { least: 0, most: 10_000, unit: 'min' },
  /** Pieces, metres or litres of one part or material. */
  partCount: { above: 0, most: 1000 },
  /** Of one item at one place, and of one move; pieces, metres or litres. */
  stockCount: { least: 0, most: 100_000 },
  stockMove: { above: 0, most: 100_000 },
  /** Ampere of a fuse that was fitted. */
  fuseRating: { above: 0, most: 600, unit: 'A' },
  /** Ampere through a fuse. */
  fuseCurrent: { least: 0, most: 2000, unit: 'A' },
  /** Of what a part is made for. */
  partVolts: { above: 0, most: 1000, unit: 'V' },
  partAmps: { above: 0, most: 1000, unit: 'A' },
  lampWatts: { above: 0, most: 2000, unit: 'W' },
  wireMm2: { above: 0, most: 240, unit: 'mm²' },
  insulation: { least: 40, most: 300, unit: '°C' },
  cavities: { least: 1, most: 200, whole: true },
  proofVolts: { least: -60, most: 60, unit: 'V' },
  /** Money, in the shop's own currency. */
  price: { least: 0, most: 1_000_000 },
  waitDays: { least: 0, most: 400, whole: true },
  /** Rating of a fuse as found. */
  foundAmps: { above: 0, most: 1000, unit: 'A' },
  modelYear: { least: 1900, most: 2100, whole: true },
} as const satisfies Readonly<Record<string, NumberRange>>;

/** Most parts, and most points, of one circuit. */
export const PART_LIMIT = 1000;
export const NODE_LIMIT = 2000;

/** Largest integer that the database keeps (PostgreSQL `integer`, 32 bits signed). */
export const LARGEST_INTEGER = 2_147_483_647;
