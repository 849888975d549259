/** A test that is offered, in words: what each result would mean, and why it is worth its minutes. */
import type { Place } from '../../format';
import { formatQuantity } from '../../quantity';
import type { Predictions } from '../evidence/predictions';
import type { TestPrediction } from '../evidence/testPrediction';
import { EMF_SPREAD, FLOATS } from '../evidence/voltsPrediction';
import { kindOf } from '../kinds';
import { voltsSpread } from '../kinds/volts';
import { joinWords } from '../verdict/joinWords';
import { type InPlay, rowsFor, type TestWorth } from './next';

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
  return joined(all.filter((range) => range.bins.length > 0));
}

/** Ranges of one name as one. */
function joined(ranges: readonly Range[]): Range[] {
  const byName = new Map<string, Range>();
  for (const range of ranges) {
    const known = byName.get(range.result);
    byName.set(
      range.result,
      known
        ? { ...known, bins: [...known.bins, ...range.bins], asExpected: known.asExpected || range.asExpected }
        : range,
    );
  }
  return [...byName.values()];
}

/** What each result of a test would mean for the suspects; groups are numbered as in `inPlay`. */
export function outcomeMeanings(
  predictions: Predictions,
  prediction: TestPrediction,
  inPlay: InPlay,
  title: (group: number) => string,
): { expected: string; meanings: OutcomeMeaning[] } {
  const { outcomes, chances } = prediction;
  const { chance, group, groupCount } = inPlay;
  const rows = rowsFor(prediction, inPlay);
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
    const against = gone.length > 0 ? ` Speaks against ${joinWords(gone, 3)}.` : '';
    return { result: range.result, chance: total, asExpected: range.asExpected, means: points + against };
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
