/** What may be done to a circuit, and what is said before it: every caution once, and one gate. */
export {
  AT_MOMENT,
  BEFORE_ENGINE,
  momentsOf,
  type SafetyScene,
  shortest,
  type Warning,
} from './cautions';
export { type Deed, NO_DEED } from './deed';
export { isHot, isMoving, partMayBeOnSeconds } from './duty';
export { safetyGate } from './gate';
export { HELPER_CAUTION } from './helper';
export {
  isSafetySlot,
  SAFETY_SLOT,
  SYSTEM_WORDS,
  safetyMarks,
  safetyQuestions,
  slotSystem,
  withSlotMarks,
} from './marks';
export { goneFrom, type Remark, remarksOn } from './remarks';
