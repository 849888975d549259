/** Arithmetic of likelihoods, in logarithms where they are multiplied. */

/** Chance that a fault that comes and goes is there in an episode. */
export const PRESENT = 0.5;

/** Log-likelihood of what was read in a stretch in which a fault was either there or away. */
export function either(present: number, absent: number): number {
  const top = Math.max(present, absent);
  return top + Math.log(PRESENT * Math.exp(present - top) + (1 - PRESENT) * Math.exp(absent - top));
}

/** Density of the normal distribution. */
export function density(x: number, mean: number, spread: number): number {
  const z = (x - mean) / spread;
  return Math.exp(-0.5 * z * z) / (spread * Math.sqrt(2 * Math.PI));
}

/** Probabilities from log weights; sums to one. */
export function normalise(logWeight: Float64Array): Float64Array {
  let top = Number.NEGATIVE_INFINITY;
  for (const value of logWeight) top = Math.max(top, value);
  const p = new Float64Array(logWeight.length);
  let sum = 0;
  for (let h = 0; h < p.length; h++) {
    p[h] = Math.exp(logWeight[h]! - top);
    sum += p[h]!;
  }
  for (let h = 0; h < p.length; h++) p[h] = p[h]! / sum;
  return p;
}
