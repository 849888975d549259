/** Rectangles that lie over one another, found by a sweep from left to right instead of pair by pair. */

export interface Rectangle {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Edges that meet are no overlap, nor is what rounding makes of them; in the unit of the rectangles (mm). */
const TOUCHING = 0.01;

/**
 * Every pair that overlaps, each once, the earlier of the list first. The sweep visits left edges in their order and
 * compares each with what it still stands above of; time grows with the rectangles side by side, not with all pairs.
 */
export function* overlaps<R extends Rectangle>(rectangles: readonly R[]): Generator<readonly [R, R]> {
  const order = rectangles.map((_, index) => index);
  order.sort((one, other) => rectangles[one]!.x - rectangles[other]!.x || one - other);
  let open: number[] = [];
  for (const index of order) {
    const here = rectangles[index]!;
    open = open.filter((one) => rectangles[one]!.x + rectangles[one]!.width > here.x + TOUCHING);
    for (const one of open) {
      const there = rectangles[one]!;
      const apart = there.y + there.height <= here.y + TOUCHING || here.y + here.height <= there.y + TOUCHING;
      if (apart) continue;
      yield one < index ? [there, here] : [here, there];
    }
    open.push(index);
  }
}
