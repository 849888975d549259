/** Which fault it is, what to test next, and what that proves. */
export { type ApplianceFinding, applianceFinding, type OpenedFuse, secondFuseFinding } from './appliance';
export type {
  Assessment,
  AssessmentInput,
  Complaint,
  PartStanding,
  Proposal,
  ReadingEffect,
  SessionOptions,
} from './assessment';
export { bracketOf, bracketWords } from './bracket';
export { testCardWords } from './card';
export { compareCosts } from './choice/costs';
export { fittedKey, fittedWords } from './evidence/fitted';
export { type KeptPredictions, packPredictions, unpackPredictions } from './evidence/keptPredictions';
export { asMeant } from './evidence/leads';
export { type TakenReading, UNSURE } from './evidence/readings';
export type { VoltsColumn } from './evidence/testPrediction';
export { endsRight, followEngine, leadToEnd, type Seen } from './followEngine';
export { DISAGREEMENTS, INSTRUMENT_WORDS } from './habits';
export { buildHypotheses, NOT_IN_MAP } from './hypotheses/hypotheses';
export {
  type FaultCount,
  type LearnedWeight,
  learnWeights,
  type PriorTable,
  priorTable,
  TABLE_COUNTS_AS,
} from './hypotheses/priors';
export { byProbe, KINDS, refOfId, testId, testInLog } from './kinds';
export { fuseOfNode } from './kinds/fuseBefore';
export type { AnswerKind, NumberAnswer, WordAnswer } from './kinds/kind';
export { type CardPicture, cardPicture } from './picture';
export { PICTURE, pictureShape, plugShape, slotShape } from './pictureShape';
export { complaintOf, readingOf } from './playback';
export { type Profile, profileOf } from './profile';
export { mayBridge } from './relay/bridging';
export type { SwitchedPins } from './relay/pinPanel';
export type { RoleVerdict } from './relay/pinReadings';
export type { RelayDuty } from './relay/relayDuty';
export { activeCondition, conditionComplained, expectedStates, functionRuns, type Run } from './run';
export { DiagnosisSession } from './session';
export { conditionSettings, type Setting, settingsToMake } from './settings';
export { type BarredTest, candidateTests } from './tests';
export { testMatches, testSearchWords } from './testWords';
export { WORTH_A_WORD } from './thresholds';
export { partsOfFunction, type RequiredProof, requiredProofs, type SeenBefore } from './verdict/proofs';
export { CELL_WORDS, type Cell, type SubstitutionTable, substitutionOf } from './verdict/substitution';
export { WhatWouldHelp } from './wouldHelp';
