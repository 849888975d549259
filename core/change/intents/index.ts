/** Everything that can be wanted of a change; one more is a file more and a line here. */
import type { CircuitFile } from '../../format';
import { bypassUnit, insertPart, switchForController } from './controls';
import { feedLoad, feedPoint, liveWithKey, relayLoad } from './feeds';
import { type Answers, Asking, type Intent, type Stated, Unanswered } from './intent';
import { addWire, cutWire, joinPoints, leftover, moveWire, takeOutPart, takeOutWire } from './wires';

export type { Answers, Intent, IntentField, Stated } from './intent';

/** What is wanted most often first. */
export const INTENTS: readonly Intent[] = [
  liveWithKey,
  feedLoad,
  feedPoint,
  relayLoad,
  takeOutWire,
  leftover,
  moveWire,
  switchForController,
  insertPart,
  bypassUnit,
  takeOutPart,
  addWire,
  joinPoints,
  cutWire,
];

export type StatedOrNot =
  | ({ readonly ok: true } & Stated)
  | { readonly ok: false; readonly field: string; readonly message: string };

/** Answers as edits, or what is missing. `taken`: ids that the plan uses already beside the circuit’s. */
export function state(
  intent: Intent,
  circuit: CircuitFile,
  answers: Answers,
  taken: readonly string[] = [],
): StatedOrNot {
  try {
    return { ok: true, ...intent.make(new Asking(circuit, intent, answers, taken)) };
  } catch (error) {
    if (!(error instanceof Unanswered)) throw error;
    return { ok: false, field: error.field, message: error.message };
  }
}
