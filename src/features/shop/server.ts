/** What a shop has learned. */
export { type Learning, learnedPriors, learning, resetLearning } from './learning';
