/** The row of a slot as the box is held, small enough for a card: where its holes and sockets lie. */
import type { Panel, Slot } from '../format';
import { endsAsHeld, fedEnd } from './ends';
import { seenRows } from './sentence';
import { type Turns, turnPanel } from './turn';

export interface SceneSlot {
  readonly slot: Slot;
  readonly here: boolean;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface SlotScene {
  /** Slots of the row that are in sight, from left to right, in the units of the frame. */
  readonly slots: readonly SceneSlot[];
  /** More of the row lies to that side. */
  readonly more: { readonly left: boolean; readonly right: boolean };
  /** Where a pin of the part in the slot is touched; the middle of the slot, and not sure, where the map does not say. */
  readonly spots: (pin: string) => { readonly x: number; readonly y: number; readonly sure: boolean };
}

/** Neighbours in sight on either side. */
const NEIGHBOURS = 3;
/** From the edge of a slot to the hole at its end, units of the frame. */
const INWARD = 9;

/** The row of a slot, as large as a frame has room for; null where the box has no such slot. */
export function slotScene(
  panel: Panel,
  slotId: string,
  turns: Turns,
  frame: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
): SlotScene | null {
  const seen = turnPanel(panel, turns);
  const row = seenRows(seen).find((one) => one.some(({ slot }) => slot.id === slotId));
  if (!row) return null;
  const at = row.findIndex(({ slot }) => slot.id === slotId);
  const [first, last] = [Math.max(0, at - NEIGHBOURS), Math.min(row.length, at + NEIGHBOURS + 1)];
  const shown = row.slice(first, last);
  const left = Math.min(...shown.map(({ x }) => x));
  const right = Math.max(...shown.map(({ x, width }) => x + width));
  const top = Math.min(...shown.map(({ y }) => y));
  const foot = Math.max(...shown.map(({ y, height }) => y + height));
  const scale = Math.min(frame.width / (right - left), frame.height / (foot - top));
  const shiftX = frame.x + (frame.width - (right - left) * scale) / 2;
  const shiftY = frame.y + (frame.height - (foot - top) * scale) / 2;
  const placed = (x: number, y: number) => ({
    x: shiftX + (x - left) * scale,
    y: shiftY + (y - top) * scale,
  });
  const slots = shown.map(({ slot, x, y, width, height }) => ({
    slot,
    here: slot.id === slotId,
    ...placed(x, y),
    width: width * scale,
    height: height * scale,
  }));
  const own = row[at]!;
  const here = slots.find((one) => one.here)!;
  const middle = { x: here.x + here.width / 2, y: here.y + here.height / 2, sure: false };
  const fed = fedEnd(own.slot);
  const words = endsAsHeld(panel, slotId, turns);
  return {
    slots,
    more: { left: first > 0, right: last < row.length },
    spots: (pin) => {
      const socket = own.pins.find(({ role }) => role === pin);
      if (socket) return { ...placed(socket.x, socket.y), sure: true };
      if (fed === null || (pin !== 'in' && pin !== 'out')) return middle;
      const end = words[pin === 'in' ? fed : fed === 'first' ? 'second' : 'first'];
      return {
        x: end === 'left' ? here.x + INWARD : end === 'right' ? here.x + here.width - INWARD : middle.x,
        y: end === 'upper' ? here.y + INWARD : end === 'lower' ? here.y + here.height - INWARD : middle.y,
        sure: true,
      };
    },
  };
}
