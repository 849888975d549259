/** Where current can be taken: the class of a feed, what it can still give, what speaks against it. */
export type { Reason } from './against';
export { ASKED_STATES, type FeedAsk, WHEN, type Wish, wantedWords } from './ask';
export {
  type BranchDrain,
  branchDrain,
  type SlotDrop,
  tellsCurrent,
  WITHOUT_WAKING,
} from './branchDrain';
export { type Candidate, findFeeds } from './candidates';
export { capital, classifyFeed, classOf, type FeedFinding } from './classify';
export { type ReadSupply, readSupply, type TypedSupply } from './said';
export { type FeedScene, feedKey, groupsOf, type SaidOfSupply, type StateOfFeed } from './scene';
export { ratingOf } from './simulated';
export { type SupplySide, supplySide } from './supplySide';
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
  COIL_AMPS,
  type EngineVariant,
  engineVariant,
  type RelayVariant,
  relayVariant,
  wantsRelay,
} from './variants';
export { candidateText, feedTitle, VERDICTS } from './words';
