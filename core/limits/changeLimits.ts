/** Conventions by which a change is judged, each once; volts scale with the nominal volts where a share is given. */
import type { PartKind } from '../format';
import { RETURN_MAY_LOSE_VOLTS } from './drops';

/** On from this share of the wanted volts, off below the other. */
export const ON_SHARE = 0.8;
export const OFF_SHARE = 0.1;
/** Held up where it should be dead: more than one volt on 12 V. */
export const HELD_UP_SHARE = 1 / 12;

/** What a return may be lifted by, volts; less where electronics share it. */
export const MAY_LIFT_VOLTS = RETURN_MAY_LOSE_VOLTS;
export const MAY_LIFT_ELECTRONICS_VOLTS = 0.05;

/**
 * A lead from a source is fused within so much of it, metres. Sheathed or in conduit all the way, a rule for small craft allows
 * more from the battery’s own terminal (after ABYC E-11; local rules first).
 */
export const UNFUSED_METRES = 0.18;
export const UNFUSED_SHEATHED_METRES = 1.8;

/** What a design may lose there and back, percent: less for lamps, electronics and pumps. */
export const DESIGN_DROP_PERCENT: Readonly<Partial<Record<PartKind, number>>> & { readonly other: number } = {
  lamp: 3,
  led: 3,
  module: 3,
  pump: 3,
  other: 10,
};
