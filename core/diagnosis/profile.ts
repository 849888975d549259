/** Volts along a run: what is expected, what was measured, and between which stops more was lost than expected. */

/** One stop of a run with what is expected and what was measured there, volts. */
export interface ProfileStop {
  readonly expected: number;
  readonly measured: number | null;
}

/** Between two stops that were measured, one behind the other. */
interface Loss {
  /** Indices of the stops. */
  readonly from: number;
  readonly to: number;
  /** Volts lost there beyond what is expected to be lost. */
  readonly volts: number;
}

export interface Profile {
  /** Volts of the supply: the right edge of the scale. */
  readonly supply: number;
  readonly losses: readonly Loss[];
  /** Volts measured, or between two measured stops in a straight line; null before the first and behind the last. */
  readonly line: readonly (number | null)[];
}

/** Less is within what two readings of a handheld meter differ by, volts on 12 V. */
const WORTH_SAYING = 0.1;

export function profileOf(stops: readonly ProfileStop[]): Profile {
  const known = stops.flatMap(({ measured }, index) => (measured === null ? [] : [{ index, measured }]));
  const highest = Math.max(0, ...stops.map(({ expected, measured }) => Math.max(expected, measured ?? 0)));
  const losses: Loss[] = [];
  const line: (number | null)[] = stops.map(({ measured }) => measured);
  for (const [nth, here] of known.entries()) {
    const next = known[nth + 1];
    if (!next) break;
    for (let at = here.index + 1; at < next.index; at++) {
      const way = (at - here.index) / (next.index - here.index);
      line[at] = here.measured + way * (next.measured - here.measured);
    }
    const usual = stops[here.index]!.expected - stops[next.index]!.expected;
    const volts = here.measured - next.measured - usual;
    if (volts >= WORTH_SAYING * Math.max(1, highest / 12)) {
      losses.push({ from: here.index, to: next.index, volts });
    }
  }
  return { supply: highest, losses, line };
}
