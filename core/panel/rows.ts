/** Rows of slots, as an eye and a thumb go through a box. */

interface Placed {
  readonly x: number;
  readonly y: number;
  readonly height: number;
}

/** A slot belongs to a row whose middle it is nearer to than this, millimetres, however tall it is. */
const TALLEST = 24;

/**
 * Rows, the top one first, each from left to right. Kinds are counted apart: nobody counts a relay as a hole of a fuse
 * row, and a tall relay may reach over several.
 */
export function slotRows<S extends Placed>(slots: readonly S[], kindOf: (slot: S) => string): S[][] {
  const middle = (slot: S) => slot.y + slot.height / 2;
  const rows: { middle: number; kind: string; slots: S[] }[] = [];
  for (const slot of slots.slice().sort((one, other) => middle(one) - middle(other))) {
    const kind = kindOf(slot);
    const near = Math.min(slot.height, TALLEST) / 2;
    const row = rows.find((one) => one.kind === kind && Math.abs(one.middle - middle(slot)) < near);
    if (row) row.slots.push(slot);
    else rows.push({ middle: middle(slot), kind, slots: [slot] });
  }
  return rows.map((row) => row.slots.sort((one, other) => one.x - other.x));
}

/**
 * Numbers of the slots behind one that gets another number, as they are printed on: each one more, as far as those behind
 * it are numbers. The slot itself comes first; empty where it is not among them.
 */
export function renumbered(
  order: readonly { readonly id: string; readonly number: string }[],
  from: string,
  number: string,
): { id: string; number: string }[] {
  const at = order.findIndex(({ id }) => id === from);
  if (at < 0) return [];
  const first = Number(number);
  const changed = [{ id: from, number }];
  if (!Number.isInteger(first)) return changed;
  for (const [index, { id, number: before }] of order.slice(at + 1).entries()) {
    if (!/^\d+$/.test(before)) break;
    changed.push({ id, number: String(first + index + 1) });
  }
  return changed;
}
