/** What can be wrong with each kind of part, and when a fuse opens. */
export { breakCircuit, type FaultyCircuit, isOpen, renewed } from './broken';
export { faultId, faultsOfPart, withBlownFuses } from './enumerate';
export {
  FAULT_MODES,
  type Fault,
  type FaultMode,
  FLAT_EMF,
  faultAlteration,
  faultModes,
  faultWords,
  LOOSE_MODES,
  OPEN_MODES,
  OVERCURRENT_MODES,
  parseFault,
  RESISTANCE_MODES,
  WEAK_EMF,
} from './faults';
export { openingTimeWords } from './openingTime';
export { openOverloaded, overloads } from './overload';
