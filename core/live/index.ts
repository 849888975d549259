/** A circuit with its key, switches, hands and faults as they are set. */
export { type DrawAsleep, drawsAsleep } from './asleep';
export {
  conditionAt,
  conditionOfRow,
  type DialPositions,
  positionName,
  positionsIn,
} from './row';
export type { LiveSetting } from './setting';
export { type LiveState, liveState, stateOf } from './state';
export {
  combinations,
  conditionOf,
  type Dial,
  dialsOf,
  keyPattern,
  MOST_ROWS,
  rowCount,
  type StateTable,
  stateTable,
  tableCsv,
} from './table';
