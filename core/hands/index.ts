/** What a person does to a circuit: pull, bridge, attach, isolate, cut. */
export {
  appliedAt,
  bridgeRelay,
  lampInPlaceOf,
  ledTesterAt,
  testLampAt,
  withoutBattery,
  withoutPart,
} from './attach';
export { type CutGate, cutGate, readingAt, toneGate, type WireReading } from './cutting';
export { INTERVENTION_FORMS, type Intervention, intervene, parseIntervention } from './interventions';
export {
  type IsolationStep,
  isolationGate,
  lookAlikes,
  STEP_WORDS,
  STEPS,
  stepsOf,
  TASK_WORDS,
  TASKS,
  type Task,
  tagProblem,
} from './isolation';
