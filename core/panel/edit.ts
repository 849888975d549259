/** Changing a panel: one step after another, each of which can be taken back. */
import type { Panel, Slot } from '../format';
import { familySize } from '../limits';

/** Millimetres to which places and sizes snap. */
const SNAP_MM = 1;

export type Change =
  | { readonly kind: 'add'; readonly slots: readonly Slot[] }
  | { readonly kind: 'remove'; readonly slots: readonly string[] }
  | {
      readonly kind: 'set';
      readonly slots: readonly string[];
      readonly fields: Partial<Omit<Slot, 'id'>>;
    }
  /** Numbers of several slots, each its own. */
  | { readonly kind: 'number'; readonly numbers: readonly { readonly id: string; readonly number: string }[] }
  | { readonly kind: 'move'; readonly slots: readonly string[]; readonly dx: number; readonly dy: number }
  | { readonly kind: 'panel'; readonly fields: Partial<Omit<Panel, 'id' | 'slots'>> };

function snap(value: number): number {
  return Math.round(value / SNAP_MM) * SNAP_MM;
}

function within(value: number, size: number, limit: number): number {
  return Math.min(Math.max(0, snap(value)), Math.max(0, limit - size));
}

/** The panel after a change. Slots stay on the panel; what the change does not name stays as it is. */
export function changed(panel: Panel, change: Change): Panel {
  switch (change.kind) {
    case 'add':
      return { ...panel, slots: [...panel.slots, ...change.slots] };
    case 'remove':
      return { ...panel, slots: panel.slots.filter((slot) => !change.slots.includes(slot.id)) };
    case 'set':
      return {
        ...panel,
        slots: panel.slots.map((slot) =>
          change.slots.includes(slot.id) ? cleaned({ ...slot, ...change.fields }) : slot,
        ),
      };
    case 'number': {
      const numbers = new Map(change.numbers.map(({ id, number }) => [id, number]));
      return {
        ...panel,
        slots: panel.slots.map((slot) => ({ ...slot, number: numbers.get(slot.id) ?? slot.number })),
      };
    }
    case 'move':
      return {
        ...panel,
        slots: panel.slots.map((slot) =>
          change.slots.includes(slot.id)
            ? {
                ...slot,
                x: within(slot.x + change.dx, slot.width, panel.width),
                y: within(slot.y + change.dy, slot.height, panel.height),
              }
            : slot,
        ),
      };
    case 'panel':
      return { ...panel, ...change.fields };
  }
}

/** Fields set to nothing are left out, as the file wants them. */
function cleaned(slot: Slot): Slot {
  return Object.fromEntries(Object.entries(slot).filter(([, value]) => value !== undefined)) as Slot;
}

export interface History {
  readonly past: readonly Panel[];
  readonly now: Panel;
  readonly future: readonly Panel[];
}

/** So many steps can be taken back. */
const STEPS = 200;

export function begin(panel: Panel): History {
  return { past: [], now: panel, future: [] };
}

/** A step on; what was taken back before is gone. A change that changes nothing is no step. */
export function step(history: History, change: Change): History {
  const now = changed(history.now, change);
  if (JSON.stringify(now) === JSON.stringify(history.now)) return history;
  return { past: [...history.past, history.now].slice(-STEPS), now, future: [] };
}

export function undo(history: History): History {
  const before = history.past.at(-1);
  return before
    ? { past: history.past.slice(0, -1), now: before, future: [history.now, ...history.future] }
    : history;
}

export function redo(history: History): History {
  const [next, ...rest] = history.future;
  return next ? { past: [...history.past, history.now], now: next, future: rest } : history;
}

export interface GridFill {
  readonly type: Slot['type'];
  readonly family: Slot['family'];
  readonly rows: number;
  readonly perRow: number;
  readonly firstNumber: number;
  /** Left upper corner and the gaps between slots, millimetres. */
  readonly x: number;
  readonly y: number;
  readonly gapX: number;
  readonly gapY: number;
  /** Slots stand upright, narrow side along the row. */
  readonly upright: boolean;
}

/** Rows and columns of slots in one go, numbered row by row; ids never repeat one of the panel. */
export function gridSlots(panel: Panel, grid: GridFill): Slot[] {
  const [long, short] = familySize(grid.family);
  const [width, height] = grid.upright ? [short, long] : [long, short];
  const taken = new Set(panel.slots.map((slot) => slot.id));
  const slots: Slot[] = [];
  for (let index = 0; index < grid.rows * grid.perRow; index++) {
    const number = grid.firstNumber + index;
    let id = `${grid.type}-${number}`;
    for (let again = 2; taken.has(id); again++) id = `${grid.type}-${number}-${again}`;
    taken.add(id);
    slots.push({
      id,
      type: grid.type,
      number: String(number),
      label: '',
      family: grid.family,
      state: 'unknown',
      x: snap(grid.x + (index % grid.perRow) * (width + grid.gapX)),
      y: snap(grid.y + Math.floor(index / grid.perRow) * (height + grid.gapY)),
      width,
      height,
    });
  }
  return slots;
}

/** Size that a panel must have to hold all of its slots, with a margin, millimetres. */
export function neededSize(panel: Pick<Panel, 'slots' | 'width' | 'height'>): {
  width: number;
  height: number;
} {
  return panel.slots.reduce(
    (size, slot) => ({
      width: Math.max(size.width, slot.x + slot.width),
      height: Math.max(size.height, slot.y + slot.height),
    }),
    { width: panel.width, height: panel.height },
  );
}
