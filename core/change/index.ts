/** A change of a vehicle as a plan: edits that are played before a wire is touched, what they show, the work, and the way back. */
export {
  type Applied,
  chosenEdits,
  hiddenEdits,
  type Played,
  playPlan,
  undoAll,
  undoSteps,
} from './apply';
export { type SumBehind, type SumsBehind, sumsBehind } from './behind';
export { type Carried, carryOut, circuitOf, type Ended, type NotCarried, undoingPlan } from './carry';
export { concerned, reducedTo } from './concerned';
export {
  type Examined,
  examine,
  examinePlayed,
  type Finding,
  findingKey,
  findingsOf,
  goalName,
  type Level,
} from './findings';
export { type Answers, INTENTS, type Intent, type IntentField, type Stated, state } from './intents';
export { type PlanLabel, planLabels } from './labels';
export { type Little, littleCircuit, type Touched } from './little';
export { mayMove } from './order';
export { touchedParts } from './patch';
export { foundOn, type Rests, restsOn, startedOn } from './recipe';
export { rewriteEdit } from './rewrite';
export { type At, MOST_SETTINGS, settingWords } from './settings';
export {
  endsRead,
  endsWords,
  type HalfDone,
  halfDone,
  type StepDone,
  type StepStanding,
  standingOf,
  strayDone,
  type WorkFacts,
} from './standing';
export { STAGE_WORDS, STAGES, type Stage, type WorkStep, workOrder } from './steps';
export { type ChangeRow, type ChangeTable, cellWords, changeCsv, changeTable } from './table';
export {
  type FileChange,
  fileBefore,
  fileChanges,
  type SlotChange,
  slotChanges,
  withSlots,
} from './versions';
