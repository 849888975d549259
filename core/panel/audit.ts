/** What is fitted against what belongs there, and what a box still owes before it can be called mapped. */

import type { Panel, Slot } from '../format';
import { BLADE_VOLTS, colourOf, isTallerOf } from '../limits';
import { formatNumber } from '../quantity';

export interface AuditItem {
  readonly slot: string;
  readonly kind:
    | 'overrated'
    | 'underrated'
    | 'wrong-family'
    | 'wrong-colour'
    | 'wrong-height'
    | 'missing'
    | 'unasked'
    | 'voltage';
  readonly words: string;
  /** Above the design, and so never a repair. */
  readonly danger: boolean;
}

/** What is wrong with what was found in a slot. */
export function auditSlot(slot: Slot, nominalVolts: number): AuditItem[] {
  const items: AuditItem[] = [];
  const add = (kind: AuditItem['kind'], words: string, danger = false) =>
    items.push({ slot: slot.id, kind, words: `${slot.type} ${slot.number}: ${words}`, danger });
  const { found, ratingAmps } = slot;
  if (slot.type === 'fuse' && slot.state === 'missing') {
    add(
      'missing',
      `a fuse of ${ratingAmps ? `${formatNumber(ratingAmps)} A` : 'unknown rating'} belongs here and is not there.`,
    );
  }
  if (slot.state === 'not-ordered' && found)
    add('unasked', 'something is fitted although nothing was ordered here.');
  if (slot.type === 'fuse' && nominalVolts > BLADE_VOLTS && colourOf(slot.family, ratingAmps ?? 0) !== null) {
    add('voltage', `blade fuses are made for ${BLADE_VOLTS} V; this is a ${nominalVolts} V system.`, true);
  }
  if (!found) return items;
  if (found.ratingAmps !== undefined && ratingAmps !== undefined && found.ratingAmps !== ratingAmps) {
    const percent = Math.round((100 * found.ratingAmps) / ratingAmps);
    if (found.ratingAmps > ratingAmps) {
      const wire =
        slot.wireLimitAmps === undefined
          ? 'the limit of its wire is not known'
          : `${Math.round((100 * found.ratingAmps) / slot.wireLimitAmps)} % of what its wire carries`;
      add(
        'overrated',
        `${formatNumber(found.ratingAmps)} A fitted for ${formatNumber(ratingAmps)} A: ${percent} % of the design, ${wire}. A higher rating never is a repair.`,
        true,
      );
    } else {
      add(
        'underrated',
        `${formatNumber(found.ratingAmps)} A fitted for ${formatNumber(ratingAmps)} A: ${percent} % of the design; safe, but it may blow in use.`,
      );
    }
  }
  if (found.family !== undefined && found.family !== slot.family) {
    const height = isTallerOf(slot.family, found.family) || isTallerOf(found.family, slot.family);
    add(
      height ? 'wrong-height' : 'wrong-family',
      height
        ? `${familyWords(found.family)} fitted for ${familyWords(slot.family)}: the right current in the wrong height does not seat. Rejected.`
        : `${familyWords(found.family)} fitted for ${familyWords(slot.family)}. Families do not interchange.`,
      true,
    );
  }
  if (found.colour !== undefined && found.ratingAmps !== undefined) {
    const belongs = colourOf(found.family ?? slot.family, found.ratingAmps);
    if (belongs !== null && belongs !== found.colour) {
      add(
        'wrong-colour',
        `${found.colour} is not the colour of ${formatNumber(found.ratingAmps)} A in this family (${belongs}).`,
      );
    }
  }
  return items;
}

function familyWords(family: Slot['family']): string {
  return family.replace(/-/g, ' ');
}

export interface Unaccounted {
  readonly words: string;
  readonly slot: string | null;
}

const FOR_WHICH_BUILD = 'For which build or year the lid or manual holds is not said.';

/**
 * What a box still owes: gaps and repeats in the printed numbers, and for every slot on one line what is not known of
 * it. Nothing is complete while one is left.
 */
export function unaccounted(panel: Panel): Unaccounted[] {
  const fromPaper = panel.slots.some(({ source }) => source === 'lid' || source === 'manual');
  const forBuild = panel.slots.some(({ applies }) => applies !== undefined && applies !== '');
  return [
    ...(fromPaper && !forBuild ? [{ slot: null, words: FOR_WHICH_BUILD }] : []),
    ...(['fuse', 'relay', 'cavity', 'stud'] as const).flatMap((type) =>
      numberingOf(
        type,
        panel.slots.filter((slot) => slot.type === type).map((slot) => slot.number),
      ).map((words) => ({ slot: null, words })),
    ),
    ...panel.slots.flatMap((slot) => {
      const owed = owedBy(slot);
      if (owed.length === 0) return [];
      return [{ slot: slot.id, words: `${slot.type} ${slot.number}: ${owed.join('; ')}.` }];
    }),
  ];
}

export interface Settled {
  /** Positions of which nothing is owed. */
  readonly settled: number;
  readonly of: number;
  /** "11 of 18 positions settled"; a box is never called complete. */
  readonly words: string;
}

/** How much of a box is settled; slots that nothing is asked of count as settled. */
export function settledIn({ slots }: Pick<Panel, 'slots'>): Settled {
  const settled = slots.filter((slot) => owedBy(slot).length === 0).length;
  return { settled, of: slots.length, words: `${settled} of ${slots.length} positions settled` };
}

/** Gaps and repeats in the numbers printed beside slots of one type. */
function numberingOf(type: Slot['type'], printed: readonly string[]): string[] {
  const numbers = printed.filter((one) => /^\d+$/.test(one)).map(Number);
  const present = [...new Set(numbers)].sort((one, other) => one - other);
  return present.flatMap((number, index) => {
    const words: string[] = [];
    const count = numbers.filter((one) => one === number).length;
    if (count > 1) words.push(`${type} ${number} stands ${count} times.`);
    const [from, to] = [number + 1, (present[index + 1] ?? number + 1) - 1];
    if (from === to) words.push(`${type} ${from} is not on the map: a hole skipped?`);
    else if (from < to) words.push(`${type} ${from} to ${to} are not on the map: holes skipped?`);
    return words;
  });
}

/** What is not known of a slot. */
function owedBy(slot: Slot): string[] {
  const used = slot.state === 'fitted' || slot.state === 'tapped' || slot.state === 'unknown';
  // That a hole is empty shows itself; why, nobody has said.
  if (slot.state === 'empty')
    return slot.stateEvidence ? [] : ['empty, and why is not known: never ordered, missing or abandoned'];
  if (!used) return [];
  const owed: string[] = [];
  if (slot.state === 'unknown') owed.push('not known whether anything is fitted');
  if (slot.type !== 'stud' && !slot.label && !slot.meaning) {
    owed.push('no label, so trace what it serves');
  } else if ((slot.type === 'fuse' || slot.type === 'relay') && !slot.functions?.length) {
    owed.push('which functions it serves is not mapped');
  }
  if (slot.confirmed !== true) owed.push('unverified here');
  return owed;
}
