export { CircuitView } from './CircuitView';
export { LedgerTable } from './LedgerTable';
