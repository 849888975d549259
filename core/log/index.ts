/** The log of a job: kinds of entries, the job that they make, and the row that lists read of it. */
export type { CheckCell, Identity, JobPhoto, ProofCell, Watch } from './draft';
export { ENDINGS, endingWords, type SaidEnding, whyNotEnd } from './ending';
export { cellKey, inOrder, type LogEntry, type LogEvent } from './event';
export { fittedNow } from './fitted';
export { EVENT_KINDS, eventWords, keptOf, standsBehind, stepOf } from './kinds';
export { missingProofs } from './missing';
export {
  conditionName,
  functionName,
  partName,
  SOUND_WORDS,
  STATE_WORDS,
  valueWords,
  WORK_WORDS,
  wordOf,
} from './names';
export { openedFuses } from './openedFuses';
export { BEGUN, type Kept, type Progress, type Stage, stageOfRow } from './progress';
export { type Sheet, type SheetLine, type SheetPart, sheetOf } from './sheet';
export { conditionSeenLast, type JobState, type JobSummary, jobState, summarise } from './state';
export { heardId, takenReadings } from './taken';
