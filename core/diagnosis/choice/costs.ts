/** Ways of mending compared by what they cost. */
import { labourTotal, lineTotal, sumOf } from '../../quantity';

export interface CostLine {
  readonly name: string;
  readonly minutes: number;
  readonly price: number;
  readonly total: number;
}

/** Two ways compared, own labour included: mending at the part, and the whole assembly. Prices in the shop's money. */
export function compareCosts(
  ratePerHour: number,
  ways: readonly { readonly name: string; readonly minutes: number; readonly price: number }[],
): { readonly lines: readonly CostLine[]; readonly cheapest: string } {
  const lines = ways.map((way) => ({
    ...way,
    total: sumOf([lineTotal(way.price, 1), labourTotal(ratePerHour, way.minutes)]),
  }));
  const cheapest = lines.reduce((least, line) => (line.total < least.total ? line : least), lines[0]!);
  return { lines, cheapest: cheapest.name };
}
