/** A reading that was taken, in words: what it means, what it clears, whether it fits. */
import type { CircuitModel } from '../../network';
import { formatQuantity } from '../../quantity';
import { turnedWords } from '../evidence/leads';
import type { Left } from '../evidence/left';
import type { Predictions } from '../evidence/predictions';
import type { TakenReading } from '../evidence/readings';
import type { RepairGroup } from '../evidence/repairGroup';
import { kindOf } from '../kinds';
import { type Meaning, Names } from '../kinds/kind';
import { joinWords } from './joinWords';
import { movedWords } from './moved';

/** What a reading is told by. */
export interface ReadingNews {
  readonly predictions: Predictions;
  readonly reading: TakenReading;
  readonly earlier: readonly TakenReading[];
  /** What a sound circuit would have shown, by the readings before. */
  readonly expected: Meaning['expected'];
  /** Chances of the hypotheses before it and after. */
  readonly before: Float64Array;
  readonly after: Float64Array;
  /** No hypothesis explains it together with what was read before, and one did so far. */
  readonly unexpected: boolean;
}

/** A reading put into words: what it means, what it speaks for and against, and what it lacks. */
export interface ReadingWords {
  readonly means: string;
  readonly lacks: string;
}

export const SAYS_NOTHING: ReadingWords = {
  means: 'Recorded; it says nothing about the circuit.',
  lacks: '',
};

/** `left` is what is left by now, as it stood in the episode of the reading. */
export function explainReading(news: ReadingNews, left: Left, groups: readonly RepairGroup[]): ReadingWords {
  const { predictions, reading, earlier, expected, before, after, unexpected } = news;
  const { model, hypotheses } = predictions;
  const meaning = { model, names: new Names(model.circuit), expected, earlier, left };
  const means = kindOf(reading.test).means(meaning, reading.test, reading.value) ?? 'Recorded.';
  // The first thing known moves nothing: the suspects begin with it.
  const moved = earlier.length > 0 ? movedWords(model, hypotheses, groups, before, after) : '';
  const misfit = unexpected
    ? ' It does not fit what was recorded before: repeat it, and check the condition and the spot.'
    : '';
  return {
    means: `${signWords(reading, earlier)}${means}${moved}`,
    lacks: misfit + provisionalWords(reading),
  };
}

/** The whole sentence; `clears` are the parts that it cleared and that are cleared still. */
export function readingSentence(
  { means, lacks }: ReadingWords,
  clears: readonly string[],
  model: CircuitModel,
): string {
  const names = clears.map((part) => model.network.parts.get(part)?.name ?? part);
  return `${means}${names.length > 0 ? ` Clears ${joinWords(names)}.` : ''}${lacks}`;
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
