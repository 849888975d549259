export { isNotation, readCircuitText } from './circuitText';
export { circuitOfPattern, LOAD_WORDS, type LoadWord, PATTERNS, type Pattern } from './patterns';
export { type ReadText, readNotation, TEXT_LIMIT, type TextProblem } from './read';
export { type SuggestContext, type Suggestion, suggest } from './suggest';
export { type WriteOptions, writeNotation } from './write';
