/**
 * What an index over many vehicles has to hold and to be asked, so that it finds every slot that `judgeSlot` would take:
 * the words of a slot, and the terms of a question. The judging itself stays with `judgeSlot`.
 */
import type { Slot } from '../format';
import { numberQuery, plain, SAME_WORDS, wordsOf } from './search';

/** Shortest word that may be the beginning of another. */
const SHORTEST_BEGINNING = 3;

/** One of these words, or one that begins so. */
interface SearchTerm {
  readonly like: readonly string[];
  readonly begins: string | null;
}

/** All terms have to be met, or else the whole text as it is printed. */
export interface SearchQuestion {
  readonly terms: readonly SearchTerm[];
  readonly printed: string;
}

/** Words of a slot that a search may name. */
export function slotWords(slot: Slot): string[] {
  const rating = slot.ratingAmps === undefined ? '' : `${slot.ratingAmps} ${slot.ratingAmps}a a`;
  const words = wordsOf(
    [
      slot.type,
      slot.number,
      slot.label,
      slot.meaning ?? '',
      slot.colour ?? '',
      rating,
      ...(slot.synonyms ?? []),
      ...(slot.functions ?? []),
    ].join(' '),
  );
  return [...new Set([...words, plain(slot.number)])].filter((word) => word !== '');
}

/** "F14" and "fuse 14" are asked by type and number; everything else by its words. Null where nothing is asked. */
export function slotQuestion(text: string): SearchQuestion | null {
  const words = wordsOf(text);
  if (words.length === 0) return null;
  const numbered = numberQuery(words);
  const wanted = numbered ? [numbered.number, ...(numbered.type === null ? [] : [numbered.type])] : words;
  return { terms: wanted.map(termOf), printed: plain(text) };
}

/** Names and plates: every word begins one of theirs, or all together are a part of the plate. */
export function nameQuestion(text: string): SearchQuestion | null {
  const words = wordsOf(text);
  const printed = plain(words.join(''));
  if (printed.length < 2) return null;
  return { terms: words.map((word) => ({ like: [word], begins: word })), printed };
}

/** Words of a name, and every part of a plate by its beginning: "414" is in "MB 414". */
export function nameWords(name: string, plate: string): string[] {
  const letters = [...plain(plate)];
  const parts = letters.slice(0, -1).map((_, at) => letters.slice(at).join(''));
  return [...new Set([...wordsOf(name), ...parts])];
}

function termOf(word: string): SearchTerm {
  const like = SAME_WORDS.find((one) => one.includes(word)) ?? [word];
  return { like, begins: word.length >= SHORTEST_BEGINNING ? word : null };
}

/** Whether words meet a question; what an index does, for one of them. */
export function meets(words: readonly string[], { terms, printed }: SearchQuestion): boolean {
  const met = ({ like, begins }: SearchTerm) =>
    words.some((word) => like.includes(word) || (begins !== null && word.startsWith(begins)));
  return words.includes(printed) || terms.every(met);
}
