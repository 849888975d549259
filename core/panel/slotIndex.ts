/** Slots of many vehicles found at once: an inverted index of their words, prefixes and families of words included. */
import type { Panel, Slot } from '../format';
import { judgeSlot, numberQuery, plain, SAME_WORDS, wordsOf } from './search';

export interface IndexedSlot {
  readonly vehicle: string;
  readonly panel: Panel;
  readonly slot: Slot;
}

export interface SlotFound extends IndexedSlot {
  readonly because: string;
  readonly score: number;
}

/** Words of a slot that a search may name. */
function slotWords(slot: Slot): string[] {
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
  return [...words, plain(slot.number)];
}

export class SlotIndex {
  private readonly words: string[];
  private readonly slotsOf = new Map<string, number[]>();

  constructor(private readonly slots: readonly IndexedSlot[]) {
    slots.forEach(({ slot }, index) => {
      for (const word of new Set(slotWords(slot))) {
        const list = this.slotsOf.get(word);
        if (list) list.push(index);
        else this.slotsOf.set(word, [index]);
      }
    });
    this.words = [...this.slotsOf.keys()].sort();
  }

  /** Best first; every word of the text must be met, by its beginning or by a word that means the same. */
  find(text: string, limit = 30): SlotFound[] {
    const query = wordsOf(text);
    if (query.length === 0) return [];
    const numbered = numberQuery(query);
    // "F14" and "fuse 14" are judged by number; everything else by its words.
    const wanted = numbered ? [numbered.number] : query;
    const [first = '', ...others] = wanted;
    let left = this.meeting(first);
    const printed = this.slotsOf.get(plain(text)) ?? [];
    for (const word of others) {
      const met = this.meeting(word);
      left = new Set([...left].filter((index) => met.has(index)));
    }
    for (const index of printed) left.add(index);
    const hits: SlotFound[] = [];
    for (const index of left) {
      const entry = this.slots[index]!;
      const hit = judgeSlot(entry.slot, query, numbered);
      if (hit) hits.push({ ...entry, ...hit });
    }
    return hits
      .sort(
        (one, other) =>
          other.score - one.score || (one.vehicle < other.vehicle ? -1 : one.vehicle > other.vehicle ? 1 : 0),
      )
      .slice(0, limit);
  }

  private meeting(word: string): Set<number> {
    const found = new Set<number>();
    const family = SAME_WORDS.find((one) => one.includes(word)) ?? [word];
    for (const like of family) for (const index of this.slotsOf.get(like) ?? []) found.add(index);
    if (word.length >= 3) {
      for (let at = this.firstFrom(word); this.words[at]?.startsWith(word); at++) {
        for (const index of this.slotsOf.get(this.words[at]!)!) found.add(index);
      }
    }
    return found;
  }

  /** Place of the first word that does not come before the wanted one. */
  private firstFrom(word: string): number {
    let low = 0;
    let high = this.words.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.words[middle]! < word) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}
