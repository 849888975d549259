/** The hand of a technician of whom nothing else is known. */
import type { Hand } from './handSchema';

/** Where nobody said otherwise: everything at hand, the lamp of a 12 V workshop, our own side of every question. */
export const USUAL_HAND: Hand = {
  without: [],
  lampVolts: [12],
  fuses: 'probe',
  tester: 'either',
  exchange: 'early',
  isolation: 'by-task',
};
