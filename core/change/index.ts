/** A change of a vehicle as a plan: edits that are played before a wire is touched, what they show, the work, and the way back. */
export {
  chosenEdits,
  hiddenEdits,
  type Played,
  playPlan,
  undoAll,
  undoSteps,
} from './apply';
export type { At } from './at';
export { type SumsBehind, sumsBehind } from './behind';
export { carryOut, circuitOf, type Ended, undoingPlan } from './carry';
export { concerned, reducedTo } from './concerned';
export {
  examine,
  type Finding,
  findingKey,
  goalName,
  type Level,
} from './findings';
export { type Answers, INTENTS, type IntentField, type Stated, state } from './intents';
export { planLabels } from './labels';
export { littleCircuit } from './little';
export { mayMove } from './order';
export { touchedParts } from './patch';
export { foundOn, type Rests, restsOn, startedOn } from './recipe';
export { rewriteEdit } from './rewrite';
export {
  endsWords,
  type HalfDone,
  halfDone,
  type StepStanding,
  standingOf,
  strayDone,
  type WorkFacts,
} from './standing';
export { STAGE_WORDS, STAGES, type WorkStep, workOrder } from './steps';
export { type ChangeTable, cellWords, changeCsv, changeTable } from './table';
export { withSlots } from './versions';
