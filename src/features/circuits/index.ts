export { CircuitView } from './CircuitView';
export { LedgerTable } from './LedgerTable';
export { type CellOf, StateTableView } from './StateTableView';
