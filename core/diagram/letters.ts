/** Room that letters take in a drawing. */
export const GAP = 6;

/** Points of the drawing. */
export const LETTER = 6.3;

export const LINE = 13;
