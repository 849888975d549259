/** What is fitted in a repair, judged against what belongs there. */
export { PART_FIELDS, readPart, typedOf } from './fields';
export {
  COMPARED,
  type ComparedKind,
  DEED_WORDS,
  JOINT_WORDS,
  jointProblem,
  judgeLine,
  kindWords,
  lineWords,
  noRepair,
  thinnestBehind,
  wantedAt,
} from './fitting';
export { type Alike, likeForLike } from './likeForLike';
