/** How much of a fuse's rating a current is, per cent. */

export function percentOfRating(amps: number, ratingAmps: number): number {
  return Math.round((amps / ratingAmps) * 100);
}
