/** What a shop has learned. */

export { handOf, keepHand } from './hand';
export { learnedPriors, learning, resetLearning } from './learning';
export { hourlyRate, keepRate } from './rate';
