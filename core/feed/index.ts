/** Where current can be taken: the class of a feed, what it can still give, what speaks against it. */

export { ASKED_STATES, type FeedAsk, WHEN, type Wish, wantedWords } from './ask';
export {
  branchDrain,
  type SlotDrop,
  tellsCurrent,
  WITHOUT_WAKING,
} from './branchDrain';
export type { Candidate } from './candidate';
export { findFeeds } from './candidates';
export { classifyFeed } from './classify';
export { readSupply, type TypedSupply } from './said';
export { type FeedScene, feedKey, groupsOf, type SaidOfSupply } from './scene';
export { ratingOf } from './simulated';
export { supplySide } from './supplySide';
export {
  isOpenHole,
  type SurveyRow,
  surveyCsv,
  surveyed,
  surveyFile,
  surveyRow,
  surveyRows,
  surveyWords,
} from './survey';
export {
  type EngineVariant,
  engineVariant,
  type RelayVariant,
  relayVariant,
  wantsRelay,
} from './variants';
export { candidateText, feedTitle } from './words';
