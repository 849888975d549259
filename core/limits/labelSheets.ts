/** Plain label sheets, by how many there are and how large they are; millimetres from the edge of the paper. */
export interface LabelSheet {
  readonly id: string;
  readonly name: string;
  readonly paper: readonly [width: number, height: number];
  readonly columns: number;
  readonly rows: number;
  readonly label: readonly [width: number, height: number];
  /** From the left and upper edge of the paper to the first label. */
  readonly from: readonly [left: number, top: number];
  /** From one label's left or upper edge to the next one's. */
  readonly step: readonly [across: number, down: number];
}

const A4 = [210, 297] as const;

export const LABEL_SHEETS: readonly LabelSheet[] = [
  {
    id: '24',
    name: '24 on A4, 70 × 37 mm',
    paper: A4,
    columns: 3,
    rows: 8,
    label: [70, 37],
    from: [0, 0.5],
    step: [70, 37],
  },
  {
    id: '14',
    name: '14 on A4, 99.1 × 38.1 mm',
    paper: A4,
    columns: 2,
    rows: 7,
    label: [99.1, 38.1],
    from: [4.65, 15.15],
    step: [101.6, 38.1],
  },
  {
    id: '65',
    name: '65 on A4, 38.1 × 21.2 mm',
    paper: A4,
    columns: 5,
    rows: 13,
    label: [38.1, 21.2],
    from: [4.75, 10.7],
    step: [40.6, 21.2],
  },
];

/** Left and upper edge of a label by its place on the sheets, millimetres; `place` counts from 0 over all sheets. */
export function labelPlace(
  { columns, rows, from, step }: LabelSheet,
  place: number,
): { readonly page: number; readonly x: number; readonly y: number } {
  const each = columns * rows;
  const on = place % each;
  return {
    page: Math.floor(place / each),
    x: from[0] + (on % columns) * step[0],
    y: from[1] + Math.floor(on / columns) * step[1],
  };
}
