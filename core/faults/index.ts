/** What can be wrong with each kind of part, and when a fuse opens. */
export { breakCircuit, type FaultyCircuit, isOpen, renewed } from './broken';
export { faultId, faultsOfPart, largestCurrent, withBlownFuses } from './enumerate';
export {
  FAULT_MODES,
  type Fault,
  type FaultMode,
  faultAlteration,
  faultModes,
  faultWords,
  LOOSE_MODES,
  OPEN_MODES,
  OVERCURRENT_MODES,
  parseFault,
  RESISTANCE_MODES,
  SHORT_MODES,
} from './faults';
export { openingTime, openingTimeWords } from './openingTime';
export { burns, openOverloaded, overloads } from './overload';
