/** A portable appliance that was plugged in when it failed: what it draws, and whether another fuse may be fitted. */
import { formatQuantity } from '../quantity';

export interface Appliance {
  readonly watts?: number;
  /** Fuses that have blown with it plugged in. */
  readonly fusesTaken: number;
  /** It is unplugged and put aside, or was shown to be sound. */
  readonly setAside: boolean;
}

export interface ApplianceFinding {
  /** Calculated from watts and nominal volts; null while the watts are not known. */
  readonly amps: number | null;
  /** The current is more than the fuse holds. */
  readonly tooMuch: boolean;
  /** No fuse may be fitted before the appliance is dealt with. */
  readonly halted: boolean;
  readonly sentence: string;
}

/** Continuous load that a fuse holds at 25 °C, as a share of its rating. */
const CONTINUOUS_SHARE = 0.8;

/**
 * One appliance that took out a fuse is set aside before the next is fitted; one that took two is itself the
 * suspect. `fuseAmps` is the rating of the fuse that feeds it, null where the map does not say.
 */
export function applianceFinding(
  { watts, fusesTaken, setAside }: Appliance,
  nominalVolts: number,
  fuseAmps: number | null,
): ApplianceFinding {
  const amps = watts === undefined ? null : watts / nominalVolts;
  const tooMuch = amps !== null && fuseAmps !== null && amps > fuseAmps * CONTINUOUS_SHARE;
  const draws =
    amps === null
      ? 'What it draws is not known: read its plate.'
      : `${watts} W at ${nominalVolts} V draw ${formatQuantity(amps, 'A')} (calculated)${
          fuseAmps === null
            ? '.'
            : tooMuch
              ? `, too much for a fuse of ${fuseAmps} A.`
              : `, which a fuse of ${fuseAmps} A holds.`
        }`;
  if (setAside) {
    return { amps, tooMuch, halted: false, sentence: `The appliance is set aside. ${draws}` };
  }
  const halted = fusesTaken > 0;
  const what =
    fusesTaken >= 2
      ? `It took ${fusesTaken} fuses: the appliance itself is the suspect. Fit no other fuse until it is set aside or shown to be sound.`
      : fusesTaken === 1
        ? 'A fuse blew with it plugged in: set it aside before the next fuse is fitted.'
        : 'Set it aside first: then it cannot mislead the tests.';
  return { amps, tooMuch, halted, sentence: `${what} ${draws}` };
}
