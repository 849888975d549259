/** The way that current takes through a branch: from where it comes to where it goes. */
import type { CircuitModel, OperatingPoint } from '../network';

/** Longer ways are not told. */
const MOST_PARTS = 24;

/** Parts along the strongest current through a branch, from its source on; the branch’s own part among them. */
export function flowPath(model: CircuitModel, point: OperatingPoint, branch: number): string[] {
  const { network } = model;
  const ends = (index: number): readonly [from: number, to: number] => {
    const { a, b } = network.branches[index]!;
    return point.amps[index]! >= 0 ? [a, b] : [b, a];
  };
  const follow = (start: number, upstream: boolean): number[] => {
    const way: number[] = [];
    const seen = new Set([start]);
    let node = ends(start)[upstream ? 0 : 1];
    while (way.length < MOST_PARTS && node !== network.datum) {
      let next = -1;
      for (let index = 0; index < network.branches.length; index++) {
        if (seen.has(index) || Math.abs(point.amps[index]!) < 1e-4) continue;
        if (ends(index)[upstream ? 1 : 0] !== node) continue;
        if (next < 0 || Math.abs(point.amps[index]!) > Math.abs(point.amps[next]!)) next = index;
      }
      if (next < 0) break;
      seen.add(next);
      way.push(next);
      node = ends(next)[upstream ? 0 : 1];
    }
    return way;
  };
  const way = [...follow(branch, true).reverse(), branch, ...follow(branch, false)];
  return [...new Set(way.map((index) => network.branches[index]!.part))];
}

/** A way in words: names of its parts. */
export function wayWords(model: CircuitModel, path: readonly string[]): string {
  return path.map((id) => model.network.parts.get(id)?.name ?? id).join(' → ');
}
