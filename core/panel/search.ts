/** Finds slots over all boxes of a vehicle by number with type, label, meaning, synonym, function, rating. */
import type { Panel, Slot } from '../format';
import { formatNumber } from '../quantity';

/** Score of a hit by rating and colour alone: a candidate, never a proof. */
export const RATING_ONLY = 40;

export interface SlotHit {
  readonly panel: Panel;
  readonly slot: Slot;
  /** What matched, in words. */
  readonly because: string;
  readonly score: number;
}

/** Words of the two dialects and common abbreviations that mean the same. */
export const SAME_WORDS: readonly (readonly string[])[] = [
  ['earth', 'ground', 'gnd'],
  ['bonnet', 'hood'],
  ['lamp', 'lamps', 'light', 'lights', 'lt', 'lps'],
  ['heated', 'heater', 'heating', 'htd', 'ht'],
  ['mirror', 'mirrors', 'mir'],
  ['screen', 'window', 'windscreen', 'windshield'],
  ['fridge', 'refrigerator', 'cooler', 'frdg'],
  ['fan', 'blower', 'ventilator'],
  ['relay', 'rly'],
  ['stop', 'brake', 'stp'],
  ['demist', 'demister', 'defrost', 'defroster', 'defog'],
];

const TYPE_WORDS: Readonly<Record<string, Slot['type']>> = {
  f: 'fuse',
  fuse: 'fuse',
  r: 'relay',
  k: 'relay',
  relay: 'relay',
  rly: 'relay',
  cavity: 'cavity',
  stud: 'stud',
};

export function wordsOf(text: string): string[] {
  return text
    .toLowerCase()
    .split(/[^\p{L}\p{N}.]+/u)
    .filter((word) => word !== '');
}

function alike(wanted: string, found: string): boolean {
  if (found === wanted || (wanted.length >= 3 && found.startsWith(wanted))) return true;
  return SAME_WORDS.some((family) => family.includes(wanted) && family.includes(found));
}

function matches(query: readonly string[], text: string): boolean {
  const words = wordsOf(text);
  return query.every((wanted) => words.some((found) => alike(wanted, found)));
}

/** Reads "fuse 14", "F14", "relay 4" or a bare "14". */
export function numberQuery(query: readonly string[]): { type: Slot['type'] | null; number: string } | null {
  const joined = query.join(' ');
  const match = /^(?:([a-z]+)\s*)?(\d{1,3})$/.exec(joined);
  if (!match) return null;
  const type = match[1] === undefined ? null : TYPE_WORDS[match[1]];
  return type === undefined ? null : { type, number: match[2]! };
}

/** Best hits first. Fuse 14 and relay 14 are different slots; a bare number finds both. */
export function searchSlots(panels: readonly Panel[], text: string, limit = 20): SlotHit[] {
  const query = wordsOf(text);
  if (query.length === 0) return [];
  const numbered = numberQuery(query);
  const hits: SlotHit[] = [];
  for (const panel of panels) {
    for (const slot of panel.slots) {
      const hit = judgeSlot(slot, query, numbered);
      if (hit) hits.push({ panel, slot, ...hit });
    }
  }
  return hits.sort((one, other) => other.score - one.score).slice(0, limit);
}

/** A number or plate without what separates its parts: "MB 41-4" and "mb414" are one. */
export function plain(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
}

/** How well a slot answers a search, and by what; null when it does not. */
export function judgeSlot(
  slot: Slot,
  query: readonly string[],
  numbered: ReturnType<typeof numberQuery>,
): { because: string; score: number } | null {
  // As it is printed, letters and all: "F14", "3A", "K2/1".
  if (plain(slot.number) === plain(query.join(''))) {
    return { because: `${slot.type} ${slot.number}`, score: 100 };
  }
  if (numbered) {
    if (slot.number === numbered.number && (numbered.type === null || numbered.type === slot.type)) {
      return { because: `${slot.type} ${slot.number}`, score: 100 };
    }
    if (numbered.type !== null) return null;
  }
  if (slot.label && matches(query, slot.label)) return { because: `printed “${slot.label}”`, score: 90 };
  if (slot.meaning && matches(query, slot.meaning)) return { because: slot.meaning, score: 80 };
  for (const synonym of slot.synonyms ?? []) {
    if (matches(query, synonym)) return { because: `also called “${synonym}”`, score: 70 };
  }
  for (const served of slot.functions ?? []) {
    if (matches(query, served)) return { because: `serves ${served}`, score: 60 };
  }
  if (slot.ratingAmps !== undefined) {
    const looks = `${slot.colour ?? ''} ${formatNumber(slot.ratingAmps)} A ${formatNumber(slot.ratingAmps)}A ${slot.type}`;
    if (matches(query, looks)) return { because: looks.trim(), score: RATING_ONLY };
  }
  return null;
}
