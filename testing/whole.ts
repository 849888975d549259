/** `npm run verify` plays the long comparisons whole; `npm test` a shortened form of each. */
export const WHOLE = process.env.EVERY_TRACE_WHOLE === '1';

/** How many: of the whole, or of the shortened form. */
export const so = (whole: number, short: number) => (WHOLE ? whole : short);
