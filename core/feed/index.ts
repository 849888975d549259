/** Where current can be taken: the class of a feed, what it can still give, what speaks against it. */
export type { Reason } from './against';
export { ASKED_STATES, type FeedAsk, WHEN, type Wish, wantedWords } from './ask';
export {
  type Candidate,
  type FeedScene,
  feedKey,
  findFeeds,
  groupsOf,
  type SaidOfSupply,
  type StateOfFeed,
} from './candidates';
export { capital, classifyFeed, classOf, type FeedFinding } from './classify';
export { COIL_AMPS, type RelayVariant, relayVariant } from './relayVariant';
export { type SupplySide, supplySide } from './supplySide';
