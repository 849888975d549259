/** What a slot can be, in the order in which it is offered. */
export { SLOT_FAMILIES, SLOT_FEEDS, SLOT_STATES, SLOT_TYPES } from '../format';

/** "not ordered", "low profile mini". */
export function spokenWord(value: string): string {
  return value.replace(/-/g, ' ');
}
