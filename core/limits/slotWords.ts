/** What a slot can be, in the order in which it is offered; the file schema is the authority, types hold them equal. */
import type { Slot } from '../format';
import { FAMILY_SIZE } from './familySizes';

export const SLOT_TYPES: readonly Slot['type'][] = ['fuse', 'relay', 'cavity', 'stud'];

export const SLOT_STATES: readonly Slot['state'][] = [
  'fitted',
  'empty',
  'not-ordered',
  'missing',
  'spare',
  'abandoned',
  'tapped',
  'unknown',
];

export const SLOT_FEEDS: readonly NonNullable<Slot['feed']>[] = [
  'unknown',
  'constant',
  'accessory',
  'run',
  'ignition',
  'crank',
  'lights',
  'delayed',
  'module',
  'load-side',
  'dead',
];

export const SLOT_FAMILIES = Object.keys(FAMILY_SIZE) as readonly Slot['family'][];

/** "not ordered", "low profile mini". */
export function spokenWord(value: string): string {
  return value.replace(/-/g, ' ');
}
