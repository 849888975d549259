/** What is fitted in a repair, judged against what belongs there. */
export { type FittedFuse, fittedWords, judgeFuse, thinnestBehind } from './fitting';
export {
  type Alike,
  type ConnectorKind,
  type FuseKind,
  type LampKind,
  likeForLike,
  type PartKind,
  type Place,
  type RelayKind,
  type SwitchKind,
  type WireKind,
} from './likeForLike';
