/** Who acts, and for which shop. */
export { type Actor, currentActor } from './actor';
