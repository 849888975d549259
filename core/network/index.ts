/** A network solved: the steady state of any condition, with whatever is altered. */
export { type Alteration, type BranchChange, type Bridge, combineAlterations, UNALTERED } from './alteration';
export { chatteringPoint, type SeenPoint, seenAmps, seenPoint, seenVolts } from './chatter';
export { junctionAmps } from './junction';
export { CircuitModel, type FunctionOutcome } from './model';
export type { OperatingPoint } from './point';
export { SmallSystem } from './smallSystem';
export { SparseFactor, SparsePattern } from './sparse';
export { spiceNetlist } from './spice';
