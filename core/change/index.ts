/** A change of a vehicle as a plan: edits that are played before a wire is touched, what they show, and the way back. */
export {
  type Applied,
  chosenEdits,
  hiddenEdits,
  type Played,
  playPlan,
  restoring,
  undoAll,
  undoSteps,
} from './apply';
export {
  type Examined,
  examine,
  type Finding,
  findingKey,
  findingsOf,
  type Level,
} from './findings';
export { touchedParts } from './patch';
export { MOST_SETTINGS } from './settings';
