/** The log of a job: kinds of entries, the job that they make, and the row that lists read of it. */
export { applianceOf } from './appliance';
export { causeReopened, overloaded } from './cause';
export { type EntryTime, entryTime, momentOf } from './clock';
export { customerSheetOf } from './customerSheet';
export type { JobPhoto, PlanOnJob, Watch } from './draft';
export { ENDINGS, endingWords, type SaidEnding, whyNotEnd } from './ending';
export { cellKey, fromFileWords, type LogEntry, type LogEvent } from './event';
export { fittedNow } from './fitted';
export { eventWords, keptOf, standsBehind, stepOf } from './kinds';
export { type Label, labelsOf } from './labelsOf';
export { missingProofs } from './missing';
export {
  BOARD_CHECK_WORDS,
  conditionName,
  functionName,
  OPENED_BY_WORDS,
  PHASE_WORDS,
  partName,
  SOUND_WORDS,
  STATE_WORDS,
  valueWords,
  WATCH_SORT_WORDS,
  WORK_WORDS,
  wordOf,
} from './names';
export { openedFuses } from './openedFuses';
export { boardChecks, costOf, differencesOf } from './options';
export { judgeOwed, type OwedProof, owedProofs, type ProofAnswerName, whyNotAnswered } from './owed';
export { percentOfRating } from './percentOfRating';
export { photoWords } from './photoWords';
export { isBegun } from './plansOnJob';
export {
  BEGUN,
  type FollowUpSort,
  type HazardSort,
  type Kept,
  type Progress,
  stageOfRow,
} from './progress';
export { may, type Need, whyNot, whyNotRecorded } from './roles';
export { type PredictionStore, workedScene } from './scene';
export { sheetOf } from './sheet';
export type { Sheet, SheetLine } from './sheetLines';
export { standsNow } from './standsNow';
export { conditionSeenLast, type JobState, jobState, summarise } from './state';
export { heardId } from './taken';
export {
  complaintOf,
  fusesTaken,
  type JobMaps,
  meantReadings,
  notNowOf,
  onMaps,
  refusedTests,
  seenBefore,
  touchedParts,
  voltsOf,
} from './traced';
export { workSheetOf } from './workSheet';
