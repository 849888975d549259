/**
 * Money in the shop's currency, counted in whole hundredths: every line is rounded once, and a sum is the sum of the lines
 * as they are printed. Half a hundredth is rounded up, by the figure as it was typed.
 */

/** Hundredths of an amount in money; of a typed figure, so that 1.005 is 101 and not 100. */
function hundredths(amount: number): number {
  return Math.round(Number(`${amount}e2`)) || 0;
}

/** What several of one price cost, in money. */
export function lineTotal(price: number, count: number): number {
  return hundredths((hundredths(price) * count) / 100) / 100;
}

/** What work costs by the rate of an hour, in money. */
export function labourTotal(ratePerHour: number, minutes: number): number {
  return Math.round((hundredths(ratePerHour) * minutes) / 60) / 100;
}

/** Sums that are printed, added up. */
export function sumOf(amounts: readonly number[]): number {
  return amounts.reduce((sum, amount) => sum + hundredths(amount), 0) / 100;
}

/** Money as it is printed; no currency, for a shop has one. */
export function moneyWords(amount: number): string {
  return (hundredths(amount) / 100).toFixed(2);
}
