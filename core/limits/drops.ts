/**
 * Volts that joints and contacts may lose at working current, and when a reading counts as expected. Limits of the trade
 * for a joint are the same on 6, 12 and 24 V: its ohms and the current make them, not the system.
 */
import type { PartKind } from '../format';

/** Lost over a closed contact, a plug or a joint: below this it is good, above the other worn. */
export const CONTACT_GOOD_VOLTS = 0.1;
export const CONTACT_WORN_VOLTS = 0.2;

/** Good, to be watched, or worn. */
export function contactLoss(volts: number): 'good' | 'watch' | 'worn' {
  if (volts > CONTACT_WORN_VOLTS) return 'worn';
  return volts >= CONTACT_GOOD_VOLTS ? 'watch' : 'good';
}

/** What a sound part may lose at working current, volts, by its kind; zero where nothing is said. */
const MAY_LOSE_VOLTS: Readonly<Partial<Record<PartKind, number>>> = {
  wire: 0.2,
  relay: 0.2,
  'latching-relay': 0.2,
  solenoid: 0.2,
  switch: 0.2,
  'key-contact': 0.2,
  connector: 0.05,
  splice: 0.05,
  socket: 0.05,
  ground: 0.1,
};

/** Below this current a part carries a command, ampere: whether it comes is judged, not what a joint loses. */
const COMMAND_AMPS = 0.5;
/** What a joint of a command may lose while the command still comes, volts on 12 V. */
const COMMAND_MAY_LOSE_12V = 0.3;

/** Volts that a sound part of a kind may lose at its working current. */
export function mayLose(kind: PartKind, workingAmps: number, nominalVolts: number): number {
  const limit = MAY_LOSE_VOLTS[kind] ?? 0;
  if (limit === 0 || workingAmps >= COMMAND_AMPS) return limit;
  return Math.max(limit, COMMAND_MAY_LOSE_12V * (nominalVolts / 12));
}

/** A whole return, and a whole feed, at working current. */
export const RETURN_MAY_LOSE_VOLTS = 0.2;
export const FEED_MAY_LOSE_VOLTS = 0.5;

/** Of so many standard deviations a limit is: what loses anything up to it, all alike, spreads by it over the root of three. */
export const LIMIT_DEVIATIONS = Math.sqrt(3);

/** Battery, meter and loads together leave so much open on 12 V, where nothing is known to be closer. */
const OPEN_VOLTS_12V = 0.35;
/** So many standard deviations of what the tolerances of the circuit leave open. */
const DEVIATIONS = 2.5;

/** Within how many volts a reading is as expected, by the system's nominal volts and the spread of what is expected. */
export function expectedWithin(nominalVolts: number, spreadVolts: number): number {
  return Math.max(OPEN_VOLTS_12V * (nominalVolts / 12), DEVIATIONS * spreadVolts);
}
