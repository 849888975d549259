/** A portable appliance that was plugged in when it failed: what it draws, and whether another fuse may be fitted. */
import { RUNNING_SHARE } from '../limits';
import { formatQuantity } from '../quantity';

/** A fuse that was found open on this job, in whatever box. */
export interface OpenedFuse {
  readonly name: string;
  /** Null where nobody has read it. */
  readonly ratingAmps: number | null;
}

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
  /** Nobody has said yet what was plugged in. */
  readonly asks: boolean;
  readonly sentence: string;
}

/**
 * One appliance that took out a fuse is set aside before the next is fitted; one that took two is itself the
 * suspect. `fuseAmps` is the rating of the fuse that feeds it, null where the map does not say.
 */
export function applianceFinding(
  { watts, fusesTaken, setAside }: Appliance,
  nominalVolts: number,
  fuseAmps: number | null,
  opened: readonly OpenedFuse[] = [],
): ApplianceFinding {
  const amps = watts === undefined ? null : watts / nominalVolts;
  const tooMuch = amps !== null && fuseAmps !== null && amps > fuseAmps * RUNNING_SHARE;
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
  const beside = opened.length > 1 ? ` Open are ${namesOf(opened)}.` : '';
  if (setAside) {
    const sentence = `The appliance is set aside. ${draws}${beside}`;
    return { amps, tooMuch, halted: false, asks: false, sentence };
  }
  const halted = fusesTaken > 0;
  const what =
    fusesTaken >= 2
      ? `It took ${fusesTaken} fuses: the appliance itself is the suspect. Fit no other fuse until it is set aside or shown to be sound.`
      : fusesTaken === 1
        ? 'A fuse blew with it plugged in: set it aside before the next fuse is fitted.'
        : 'Set it aside first: then it cannot mislead the tests.';
  return { amps, tooMuch, halted, asks: false, sentence: `${what} ${draws}${beside}` };
}

/** "Fuse 3 (10 A) and Fuse 12 (rating not read)". */
function namesOf(opened: readonly OpenedFuse[]): string {
  const names = opened.map(
    ({ name, ratingAmps }) => `${name} (${ratingAmps === null ? 'rating not read' : `${ratingAmps} A`})`,
  );
  return `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;
}

/**
 * A second fuse was found open and nobody has said that anything was plugged in: the work halts and asks. Null with
 * fewer than two; `answered` once somebody has said that there was nothing.
 */
export function secondFuseFinding(opened: readonly OpenedFuse[], answered: boolean): ApplianceFinding | null {
  if (opened.length < 2) return null;
  const what = `${opened.length === 2 ? 'Two' : opened.length} fuses are open: ${namesOf(opened)}.`;
  return {
    amps: null,
    tooMuch: false,
    halted: !answered,
    asks: !answered,
    sentence: answered
      ? `${what} Nothing was plugged in: look for what both feed, or for wires of both that lie side by side.`
      : `${what} What was plugged in or switched on when they went? No other fuse is fitted before that is said.`,
  };
}
