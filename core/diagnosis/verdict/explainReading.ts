/** A reading that was taken, in words: what it means, what it clears, whether it fits. */
import type { Reading } from '../../format';
import { formatQuantity } from '../../quantity';
import { turnedWords } from '../evidence/leads';
import type { Left } from '../evidence/left';
import type { Predictions } from '../evidence/predictions';
import type { TakenReading } from '../evidence/readings';
import type { TestPrediction } from '../evidence/testPrediction';
import { JOINED } from '../evidence/voltsPrediction';
import { kindOf } from '../kinds';
import { Names } from '../kinds/kind';
import { joinWords } from './joinWords';

/** Share of the swing, to both sides of its middle, that the mean of what chatters lies in. */
const CHATTERS_WITHIN = 0.4;

/** What a reading means and clears, and whether it was out of keeping with what was left. */
export function explainReading(
  predictions: Predictions,
  reading: TakenReading,
  prediction: TestPrediction,
  taken: boolean,
  explained: boolean,
  cleared: readonly string[],
  earlier: readonly TakenReading[],
  left: Left,
): { sentence: string; unexpected: boolean } {
  if (!taken) return { sentence: 'Recorded; it says nothing about the circuit.', unexpected: false };
  const { model } = predictions;
  const names = cleared.map((part) => model.network.parts.get(part)?.name ?? part);
  const clears = names.length > 0 ? ` Clears ${joinWords(names)}.` : '';
  const sentence = `${signWords(reading, earlier)}${meaningWords(predictions, reading, prediction, earlier, left)}${clears}`;
  const unproved = provisionalWords(reading);
  if (!explained) {
    return {
      sentence: `${sentence} It does not fit what was recorded before: repeat it, and check the condition and the spot.${unproved}`,
      unexpected: true,
    };
  }
  return { sentence: sentence + unproved, unexpected: false };
}

function signWords({ turned, value }: TakenReading, earlier: readonly TakenReading[]): string {
  if (!turned || !('volts' in value)) return '';
  return turnedWords(
    formatQuantity(value.volts, 'V'),
    earlier.some((one) => one.turned),
  );
}

/** What was not made sure of before a reading, in words; nothing where all was. */
function provisionalWords({ sure, test }: TakenReading): string {
  if (!sure || test.kind === 'function') return '';
  const missing = [
    sure.tester ? '' : 'the tester was not proved first',
    sure.reference ? '' : 'the point measured against was not proved',
    sure.setUp ? '' : 'key and switches were not seen to stand as shown',
  ].filter((one) => one !== '');
  return missing.length > 0 ? ` Provisional: ${joinWords(missing)}.` : '';
}

/** Whether a hypothesis explains a reading well, wrong readings left aside. The unmapped explains nothing well. */
export function explainsReading(
  predictions: Predictions,
  prediction: TestPrediction,
  reading: TakenReading,
  hypothesis: number,
): boolean {
  if (predictions.hypotheses[hypothesis]!.alteration === null) return false;
  const { outcomes, clean, volts } = prediction;
  if (volts && 'volts' in reading.value) {
    const read = reading.value.volts;
    // A point that hangs shows nothing or a little; volts of a feed on it are no explanation.
    if (volts.floating[hypothesis] !== JOINED) {
      return Math.abs(read - volts.mean[hypothesis]!) < 0.2 * predictions.model.emfVolts;
    }
    const mean = volts.mean[hypothesis]!;
    // What chatters is neither open nor closed for long: both ends of the swing are something else.
    const swing = Math.abs(volts.swing[hypothesis]!);
    if (swing > 0) return Math.abs(read - mean) < CHATTERS_WITHIN * swing;
    return (
      Math.abs(read - mean) < 3.5 * Math.hypot(volts.spread[hypothesis]!, mean * volts.supply[hypothesis]!)
    );
  }
  const index = kindOf(reading.test).outcome(predictions.model, reading.test, reading.value);
  return index === null || clean[hypothesis * outcomes + index]! > 0.05;
}

function meaningWords(
  predictions: Predictions,
  reading: TakenReading,
  prediction: TestPrediction,
  earlier: readonly Reading[],
  left: Left,
): string {
  const { model, sound } = predictions;
  const { volts } = prediction;
  const expectedVolts = volts && volts.floating[sound] === JOINED ? volts.mean[sound]! : null;
  const meaning = { model, names: new Names(model.circuit), expectedVolts, earlier, left };
  return kindOf(reading.test).means(meaning, reading.test, reading.value) ?? 'Recorded.';
}
