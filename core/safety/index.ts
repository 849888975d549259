/** What may be done to a circuit, and what is said before it: every caution once, and one gate. */
export {
  AT_MOMENT,
  BEFORE_ENGINE,
  CAUTIONS,
  type Caution,
  MOMENTS,
  type Moment,
  momentsOf,
  type SafetyScene,
  shortest,
  type Warning,
} from './cautions';
export { type Deed, NO_DEED } from './deed';
export { isHot, isMoving, mayBeOnSeconds, partMayBeOnSeconds } from './duty';
export { type SafetyGate, safetyGate } from './gate';
export { HELPER_CAUTION } from './helper';
export {
  isSafety,
  isSafetySlot,
  type PointMark,
  SAFETY_SLOT,
  type SafetyMarks,
  type SafetyQuestion,
  type SafetySystem,
  SYSTEM_WORDS,
  safetyMarks,
  safetyQuestions,
  slotSystem,
  suggestedSystem,
  withSlotMarks,
} from './marks';
export { goneFrom, type Remark, remarksOn } from './remarks';
