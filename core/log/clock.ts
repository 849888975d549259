/**
 * When an entry was made, by the clock of the device it was made on, and whether that clock can be believed. What counts in
 * the order of the log is when the server had it; nothing is put right by guessing.
 */
import type { LogEvent } from './event';

/** Clocks of sound devices differ by less. */
const APART_MS = 10 * 60_000;
/** Before this program was written nobody can have recorded anything with it: a clock that was never set. */
const NOT_BEFORE = Date.parse('2025-01-01T00:00:00Z');

type Times = Pick<LogEvent, 'madeAt' | 'arrivedAt'>;

/** When it was made, and, where the device’s clock was wrong, when the server had it, which is to be believed. */
export interface EntryTime {
  readonly at: string;
  /** Only beside a time that cannot be. */
  readonly arrived?: string;
}

/**
 * The times of an entry: its own, and beside one that cannot be right that of its arrival.
 *
 * @example entryTime({ madeAt: '1970-01-01T00:02:00Z', arrivedAt: '2026-03-03T10:00:00Z' })
 * // { at: '1970-01-01T00:02:00Z', arrived: '2026-03-03T10:00:00Z' }
 */
export function entryTime({ madeAt, arrivedAt }: Times): EntryTime {
  if (arrivedAt === undefined) return { at: madeAt };
  const made = Date.parse(madeAt);
  const isWrong = made < NOT_BEFORE || made > Date.parse(arrivedAt) + APART_MS;
  return isWrong ? { at: madeAt, arrived: arrivedAt } : { at: madeAt };
}

/** The moment to reckon with: that of its arrival where its own cannot be. */
export function momentOf(event: Times): string {
  const { at, arrived } = entryTime(event);
  return arrived ?? at;
}
