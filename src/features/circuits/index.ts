export { CircuitView } from './CircuitView';
export { LedgerTable } from './LedgerTable';
export { LiveSetting } from './LiveSetting';
export { type CellOf, StateTableView } from './StateTableView';
export { useReadText } from './useReadText';
