/** Parts made into a network, circuits checked, joined and renamed. */
export { coilsBehind, fedBehind, loadSide, partsBehind, pointsBehind } from './behind';
export { buildNetwork } from './buildNetwork';
export { checkCircuit, checkCircuitText } from './checkCircuit';
export { type Clash, clashesWith } from './clash';
export { withConditions } from './conditions';
export { loadOhms, startFactor } from './expand';
export { fitCircuit, fitted } from './fit';
export { guessTolerance, isUnknownLoad, unknownOf } from './guesses';
export { byColour, type LedgerRow, type WireEnd, wireLedger } from './ledger';
export { mergeCircuits, same } from './merge';
export {
  type Branch,
  type BranchRole,
  conducts,
  type Moment,
  type Network,
  type Resolved,
  resolveControl,
} from './network';
export { isProtector, PROTECTORS, type Protector, ratedAs } from './protects';
export { namesOfParts, renamedAfterParts } from './rename';
