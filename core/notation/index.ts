/** Circuits as text, and the patterns that an unmapped vehicle starts from. */
export { isNotation, readCircuitText } from './circuitText';
export { feedPin, withLoadBehind } from './grow';
export {
  circuitOfPattern,
  INTERLOCKS,
  type Interlock,
  LOAD_WORDS,
  type LoadWord,
  PATTERNS,
  type Pattern,
  type ReturnPath,
  usualReturn,
} from './patterns';
export { type ReadText, readNotation } from './read';
export { type SuggestContext, suggest } from './suggest';
export type { TextProblem } from './tokens';
export { writeNotation } from './write';
