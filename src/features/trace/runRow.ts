/** The run as rows. */

/** One stop of a run with what is expected and what was measured there, volts. */
export interface RunRow {
  readonly node: string;
  readonly expected: number;
  readonly measured: number | null;
}
