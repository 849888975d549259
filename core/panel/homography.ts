/** A photo of a cover straightened by its four corners (Hartley and Zisserman, Multiple View Geometry, 4.1). */

export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Nine numbers row by row: a point (x, y, 1) times it, divided by its third, is where the point goes. */
export type Homography = readonly number[];

/**
 * The map that takes four points to four others, in the same order. Null when three of either lie on one line, for
 * then no such map exists.
 */
export function homography(from: readonly Spot[], to: readonly Spot[]): Homography | null {
  if (from.length !== 4 || to.length !== 4) return null;
  const rows: number[][] = [];
  for (let i = 0; i < 4; i++) {
    const { x, y } = from[i]!;
    const { x: u, y: v } = to[i]!;
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y, u]);
    rows.push([0, 0, 0, x, y, 1, -v * x, -v * y, v]);
  }
  // Gauss with the largest pivot; eight unknowns.
  for (let column = 0; column < 8; column++) {
    let best = column;
    for (let row = column + 1; row < 8; row++) {
      if (Math.abs(rows[row]![column]!) > Math.abs(rows[best]![column]!)) best = row;
    }
    const pivot = rows[best]!;
    if (Math.abs(pivot[column]!) < 1e-9) return null;
    rows[best] = rows[column]!;
    rows[column] = pivot;
    for (let row = 0; row < 8; row++) {
      if (row === column) continue;
      const factor = rows[row]![column]! / pivot[column]!;
      for (let k = column; k < 9; k++) rows[row]![k] = rows[row]![k]! - factor * pivot[k]!;
    }
  }
  const h = rows.map((row, index) => row[8]! / row[index]!);
  return [...h, 1];
}

/** Where a point goes. */
export function mapped(h: Homography, { x, y }: Spot): Spot {
  const w = h[6]! * x + h[7]! * y + h[8]!;
  return { x: (h[0]! * x + h[1]! * y + h[2]!) / w, y: (h[3]! * x + h[4]! * y + h[5]!) / w };
}

/** The same map as the `matrix3d` of a style sheet (column by column, depth left alone). */
export function matrix3d(h: Homography): string {
  const [a = 1, b = 0, c = 0, d = 0, e = 1, f = 0, g = 0, i = 0, j = 1] = h;
  return `matrix3d(${[a, d, 0, g, b, e, 0, i, 0, 0, 1, 0, c, f, 0, j].join(',')})`;
}
