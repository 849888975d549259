/** What may be written where the cursor stands: parts, ways, words of a kind, and what the vehicle has already. */
import type { CircuitFile, Panel, Slot } from '../format';
import { EVERY_KIND_WORD, KEY_POSITIONS, KIND_WORDS, kindOfWord } from './words';

export interface SuggestContext {
  /** Parts that this vehicle has, in any of its circuits. */
  readonly parts: readonly CircuitFile['parts'][number][];
  readonly panels: readonly Panel[];
}

interface Suggestion {
  /** What is written in place of the word at the cursor. */
  readonly insert: string;
  /** What it is, in a few words. */
  readonly says: string;
}

export interface Suggestions {
  /** Column where the word at the cursor begins. */
  readonly from: number;
  readonly list: readonly Suggestion[];
}

const MOST = 40;

/** Suggestions for a cursor in a line; the line as far as the cursor counts. */
export function suggest(line: string, column: number, context: SuggestContext): Suggestions {
  const before = line.slice(0, column);
  const word = /[^\s,]*$/.exec(before)?.[0] ?? '';
  const from = column - word.length;
  const segmentStart = before.lastIndexOf(',', from) + 1;
  const segment = before.slice(segmentStart, from).trim();
  const first = before.slice(0, from).trim() === '';
  const found = (list: readonly Suggestion[]) => ({
    from,
    list: list.filter((one) => fits(one.insert, word)).slice(0, MOST),
  });
  if (segment === '') {
    return found([...(first ? STARTS : ENDS), ...kinds(), ...(first ? [] : slots(context))]);
  }
  const [head = ''] = segment.split(/\s+/);
  if (head === 'from' || head === 'to' || head === 'at') {
    return found(
      context.parts.flatMap((part) => [
        { insert: part.id, says: part.name },
        ...Object.keys(part.pins).map((pin) => ({ insert: `${part.id}.${pin}`, says: part.name })),
      ]),
    );
  }
  const entry = kindOfWord(head);
  if (!entry) return { from, list: [] };
  const known = segment.includes(' ')
    ? []
    : context.parts
        .filter((part) => part.kind === entry.kind)
        .map((part) => ({ insert: part.id, says: `${part.name}, as it is known` }));
  const ways = entry.ways.flatMap((way) =>
    way.word ? [{ insert: way.word, says: `${way.enter} to ${way.leave}` }] : [],
  );
  const choices = Object.values(entry.choices ?? {})
    .flat()
    .map((choice) => ({ insert: choice, says: entry.word }));
  const keys =
    entry.kind === 'key-contact'
      ? ['accessory|run', 'run', 'run|crank', ...KEY_POSITIONS].map((one) => ({
          insert: one,
          says: 'closed in',
        }))
      : [];
  return found([...known, ...ways, ...choices, ...keys]);
}

const STARTS: readonly Suggestion[] = [
  { insert: 'battery, ', says: 'a branch from the battery' },
  { insert: 'from ', says: 'a branch from a point of another line' },
  { insert: 'function ', says: 'what a person sees work: function id "name": LOAD' },
  { insert: 'when ', says: 'a condition: when id "name": key run, S1 on' },
];
const ENDS: readonly Suggestion[] = [
  { insert: 'earth', says: 'ends at the body' },
  { insert: 'to ', says: 'ends at a point of another line' },
  { insert: 'open', says: 'hangs free' },
];

function kinds(): Suggestion[] {
  return EVERY_KIND_WORD.filter((word) => KIND_WORDS.some((one) => one.word === word)).map((word) => ({
    insert: `${word} `,
    says: Object.keys(kindOfWord(word)!.numbers).join(', '),
  }));
}

/** Fuses of the vehicle's boxes, as they would be written. */
function slots({ panels }: SuggestContext): Suggestion[] {
  return panels.flatMap((panel) =>
    panel.slots
      .filter((slot) => slot.type === 'fuse' || slot.type === 'relay')
      .map((slot) => ({
        insert: slotPhrase(panel, slot),
        says: `${panel.name}: ${slot.meaning ?? slot.label ?? ''}`,
      })),
  );
}

function slotPhrase(panel: Panel, slot: Slot): string {
  const rating = slot.ratingAmps === undefined ? '' : ` ${slot.ratingAmps} A`;
  const name =
    slot.type === 'fuse' ? `fuse F${slot.number}${rating} ${slot.family}` : `relay R${slot.number}`;
  return `${name} slot ${panel.id}/${slot.id}`;
}

function fits(insert: string, word: string): boolean {
  return insert.toLowerCase().includes(word.toLowerCase());
}
