/** Sentences: what a reading means and clears, what each result of a test would mean, why it is proposed. */
import type { Place } from '../format/circuitSchema';
import type { Reading } from '../format/readingsSchema';
import { formatQuantity } from '../quantity/quantity';
import type { TakenReading } from './evidence';
import { kindOf } from './kinds';
import { Names } from './kinds/kind';
import { voltsSpread } from './kinds/volts';
import { type Live, rowsFor, type TestWorth } from './next';
import { EMF_SPREAD, FLOATS, JOINED, type Predictions, type TestPrediction } from './predictions';

export interface OutcomeMeaning {
  /** "about 12.5 V", "lit", "conducts". */
  readonly result: string;
  readonly chance: number;
  /** True for what a sound circuit shows. */
  readonly asExpected: boolean;
  /** What it would mean, in a sentence. */
  readonly means: string;
}

function percent(chance: number): string {
  if (chance > 0.995) return 'almost certain';
  if (chance < 0.005) return 'under 1 %';
  return `${Math.round(chance * 100)} %`;
}

function joinWords(words: readonly string[], limit = 4): string {
  const shown = words.slice(0, limit);
  const more = words.length - shown.length;
  if (more > 0) return `${shown.join(', ')} and ${more} more`;
  return shown.length < 2
    ? shown.join('')
    : `${shown.slice(0, -1).join(', ')} and ${shown[shown.length - 1]}`;
}

interface Range {
  readonly result: string;
  readonly bins: readonly number[];
  readonly asExpected: boolean;
}

/** A handful of results that a technician would tell apart, each a set of outcomes. */
function ranges(predictions: Predictions, prediction: TestPrediction, sound: number): Range[] {
  const { ref } = prediction;
  if (ref.kind !== 'volts') {
    const words = kindOf(ref).results;
    const { outcomes, clean } = prediction;
    let expected = 0;
    for (let k = 1; k < outcomes; k++) {
      if (clean[sound * outcomes + k]! > clean[sound * outcomes + expected]!) expected = k;
    }
    return words.map((result, k) => ({ result, bins: [k], asExpected: k === expected }));
  }
  const emf = predictions.model.emfVolts;
  const floating = prediction.volts!.floating[sound] === FLOATS;
  const expected = floating ? 0 : prediction.volts!.mean[sound]!;
  const spread = Math.hypot(voltsSpread(expected, emf), expected * EMF_SPREAD);
  const width = Math.max(2.5 * spread, emf * 0.012);
  const low = predictions.bin(expected - width);
  const high = predictions.bin(expected + width);
  const below: number[] = [];
  const middle: number[] = [];
  const above: number[] = [];
  const zero: number[] = [];
  const zeroTop = predictions.bin(emf * 0.027);
  for (let k = 0; k < prediction.outcomes; k++) {
    if (k >= low && k <= high) middle.push(k);
    else if (k < low && k <= zeroTop) zero.push(k);
    else if (k < low) below.push(k);
    else above.push(k);
  }
  const about = formatQuantity(Math.abs(expected) < 0.02 ? 0 : expected, 'V');
  const all: Range[] = [
    {
      result: floating || Math.abs(expected) < 0.3 ? 'next to nothing' : `about ${about}`,
      bins: middle,
      asExpected: true,
    },
    { result: 'next to nothing', bins: zero, asExpected: false },
    { result: 'clearly less', bins: below, asExpected: false },
    { result: 'clearly more', bins: above, asExpected: false },
  ];
  return all.filter((range) => range.bins.length > 0);
}

/** What each result of a test would mean for the suspects; groups are numbered as in `live`. */
export function outcomeMeanings(
  predictions: Predictions,
  prediction: TestPrediction,
  live: Live,
  title: (group: number) => string,
): { expected: string; meanings: OutcomeMeaning[] } {
  const { outcomes, chances } = prediction;
  const { chance, group, groupCount } = live;
  const rows = rowsFor(prediction, live);
  const before = new Float64Array(groupCount);
  for (let m = 0; m < rows.length; m++) before[group[m]!] = before[group[m]!]! + chance[m]!;
  const found = ranges(predictions, prediction, predictions.sound);
  const meanings = found.map((range): OutcomeMeaning => {
    const after = new Float64Array(groupCount);
    let total = 0;
    for (let m = 0; m < rows.length; m++) {
      let likely = 0;
      for (const k of range.bins) likely += chances[rows[m]! * outcomes + k]!;
      after[group[m]!] = after[group[m]!]! + chance[m]! * likely;
      total += chance[m]! * likely;
    }
    const order = [...after.keys()].sort((x, y) => after[y]! - after[x]!);
    const lead = order[0]!;
    const leadChance = total > 0 ? after[lead]! / total : 0;
    const gone = [...after.keys()]
      .filter((g) => before[g]! > 0.03 && total > 0 && after[g]! / total < before[g]! * 0.1)
      .sort((x, y) => before[y]! - before[x]!)
      .map(title);
    const points =
      leadChance >= 0.5
        ? `Points at ${title(lead)} (${percent(leadChance)}).`
        : `Leaves ${joinWords(order.filter((g) => total > 0 && after[g]! / total > 0.01).map(title), 3)}.`;
    const clears = gone.length > 0 ? ` Clears ${joinWords(gone, 3)}.` : '';
    return { result: range.result, chance: total, asExpected: range.asExpected, means: points + clears };
  });
  return {
    expected: found.find((range) => range.asExpected)?.result ?? '',
    meanings: meanings
      .filter((one) => one.asExpected || one.chance >= 0.005)
      .sort((x, y) => Number(y.asExpected) - Number(x.asExpected) || y.chance - x.chance),
  };
}

/** Two plain sentences: what the test divides, and what it costs. */
export function explainProposal(
  meanings: readonly OutcomeMeaning[],
  worth: TestWorth,
  place: Place | undefined,
  isOpen: boolean,
): string {
  const likely = meanings.slice().sort((x, y) => y.chance - x.chance);
  const first = likely[0];
  const split = first
    ? first.chance > 0.9
      ? `Most likely it shows “${first.result}” (${percent(first.chance)}), which would settle more than any other test does in the same time.`
      : `It divides the suspects: “${first.result}” ${percent(first.chance)}${likely[1] ? `, “${likely[1].result}” ${percent(likely[1].chance)}` : ''}.`
    : '';
  const minutes = worth.minutes < 1 ? 'under a minute' : `about ${Math.round(worth.minutes * 10) / 10} min`;
  const cost =
    !place || place.minutesToOpen === 0
      ? `It takes ${minutes} and nothing has to come off.`
      : isOpen
        ? `It takes ${minutes}; ${place.name} is open already.`
        : `It takes ${minutes}, opening ${place.name} included.`;
  return `${split} ${cost}`;
}

/** What a reading means and clears, and whether it was out of keeping with what was left. */
export function explainReading(
  predictions: Predictions,
  reading: TakenReading,
  prediction: TestPrediction,
  taken: boolean,
  explained: boolean,
  cleared: readonly string[],
  earlier: readonly Reading[],
): { sentence: string; unexpected: boolean } {
  if (!taken) return { sentence: 'Recorded; it says nothing about the circuit.', unexpected: false };
  const { model } = predictions;
  const names = cleared.map((part) => model.network.parts.get(part)?.name ?? part);
  const clears = names.length > 0 ? ` Clears ${joinWords(names)}.` : '';
  const sentence = `${meaningWords(predictions, reading, prediction, earlier)}${clears}`;
  const unproved = provisionalWords(reading);
  if (!explained) {
    return {
      sentence: `${sentence} It does not fit what was recorded before: repeat it, and check the condition and the spot.${unproved}`,
      unexpected: true,
    };
  }
  return { sentence: sentence + unproved, unexpected: false };
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
    return Math.abs(read - mean) < 3.5 * Math.hypot(volts.spread[hypothesis]!, mean * EMF_SPREAD);
  }
  const index = kindOf(reading.test).outcome(predictions.model, reading.test, reading.value);
  return index === null || clean[hypothesis * outcomes + index]! > 0.05;
}

function meaningWords(
  predictions: Predictions,
  reading: TakenReading,
  prediction: TestPrediction,
  earlier: readonly Reading[],
): string {
  const { model, sound } = predictions;
  const { volts } = prediction;
  const expectedVolts = volts && volts.floating[sound] === JOINED ? volts.mean[sound]! : null;
  const meaning = { model, names: new Names(model.circuit), expectedVolts, earlier };
  return kindOf(reading.test).means(meaning, reading.test, reading.value) ?? 'Recorded.';
}
