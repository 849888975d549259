/** Said to, and of, the person at the key before anything is turned. */
export const HELPER_CAUTION =
  'Immobilised, neutral, hands clear of fans, belts, ropes and lifts; only the named person turns the key, and only when told.';
