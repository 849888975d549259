/** The ways in which a circuit is looked at. */
export const VIEWS = [
  ['drawing', 'Drawing'],
  ['text', 'Text'],
  ['table', 'Combinations'],
  ['wires', 'Wires'],
] as const;

export type View = (typeof VIEWS)[number][0];
