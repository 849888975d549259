/** Boxes of fuses and relays: turned, searched, judged, edited, joined, drawn. */
export { auditSlot, settledIn, unaccounted } from './audit';
export { CSV_COLUMNS, type CsvColumn, csvChanges, previewCsv, slotsToCsv } from './csv';
export { begin, type Change, gridSlots, type History, neededSize, redo, step, undo } from './edit';
export { type EndWords, endsAsHeld, fedEnd, withKnownEnds } from './ends';
export { homography, matrix3d, type Spot } from './homography';
export { cavityRows, disputedFrom, disputedText, plugsFrom, plugsText, stepsFrom, stepsText } from './lines';
export { mergePanelSets } from './mergeSets';
export { renumbered, slotRows } from './rows';
export { judgeSlot, numberQuery, RATING_ONLY, SAME_WORDS, searchSlots, wordsOf } from './search';
export { nameQuestion, nameWords, type SearchQuestion, slotQuestion, slotWords } from './searchTerms';
export { seenRows, slotSentence } from './sentence';
export { forSister } from './sister';
export { type Occupant, occupantsOf, slotChoices, slotKey } from './slotChoices';
export { type SceneSlot, slotScene } from './slotScene';
export { type SlotStateEntry, stateProblem, wantsProof, withSafetyAnswers, withStates } from './slotStates';
export { panelSvg } from './svg';
export { swapPairs } from './swap';
export {
  countVerdicts,
  type SlotVerdict,
  type TriageResult,
  triageOrder,
  triageSlot,
  VERDICT_WORDS,
} from './triage';
export { type Edge, type SeenSlot, type Turns, turnPanel, turnsForLandmark } from './turn';
export { type Coverage, coverage, type FunctionWithout, withoutSlot } from './withoutSlot';
