/** The record of a vehicle: what a change of it would contradict, and what two people changed at once. */
export { changedMeanwhile, type Known, vehicleConflicts } from './conflicts';
