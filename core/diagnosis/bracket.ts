import { EMF_PER_NOMINAL, expectedWithin } from '../limits';
import { voltsSpread } from './kinds/volts';

/** One stop of a run with what is expected and what was measured there, volts. */
export interface RunRow {
  readonly node: string;
  readonly expected: number;
  readonly measured: number | null;
}

/**
 * Between which stops the fault must lie. On the feed side: the last stop that reads right and the first that
 * reads low. On the return side: the last stop that is lifted and the first behind it that is not. Null until
 * the readings say so.
 */
export function bracketOf(rows: readonly RunRow[], nominalVolts: number): readonly [number, number] | null {
  const tolerance = (row: RunRow) =>
    expectedWithin(nominalVolts, voltsSpread(row.expected, EMF_PER_NOMINAL * nominalVolts));
  const measured = rows.flatMap((row, index) =>
    row.measured === null ? [] : [{ ...row, index, measured: row.measured }],
  );
  const low = measured.find((row) => row.measured < row.expected - tolerance(row));
  if (low) {
    const before = measured.filter((row) => row.index < low.index);
    return [before[before.length - 1]?.index ?? 0, low.index];
  }
  const lifted = measured.filter((row) => row.measured > row.expected + tolerance(row));
  const last = lifted[lifted.length - 1];
  if (!last) return null;
  const sound = measured.find((row) => row.index > last.index);
  return [last.index, sound?.index ?? rows.length - 1];
}
