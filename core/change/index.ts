/** A change of a vehicle as a plan: edits that are played before a wire is touched, what they show, and the way back. */
export { type Applied, type Played, playPlan, undoAll, undoSteps } from './apply';
export { type Finding, findingsOf } from './findings';
export { touchedParts } from './patch';
