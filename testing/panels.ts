/** Boxes for tests, made by rule. */
import type { PanelSetFile, Slot } from '../core/format';

/** A box of so many mini fuses in rows, numbered from 1, on a vehicle that had none. */
export function boxOf(
  count: number,
  perRow: number,
  more: (index: number) => Partial<Slot> = () => ({}),
): PanelSetFile {
  const rows = Math.ceil(count / perRow);
  return {
    format: 'every-trace/panel-set',
    version: 1,
    id: 'pickup-boxes',
    name: 'Boxes of the pickup',
    panels: [
      {
        id: 'seat-box',
        name: 'Box behind the seat',
        place: 'Behind the driver’s seat',
        minutesToOpen: 2,
        opening: ['Fold the seat back forward.', 'Press the two tongues and lift the cover.'],
        width: perRow * 12 + 8,
        height: rows * 24 + 8,
        landmark: { name: 'hinge', edge: 'left' },
        slots: Array.from(
          { length: count },
          (_, index): Slot => ({
            id: `fuse-${index + 1}`,
            type: 'fuse',
            number: String(index + 1),
            label: `L${index + 1}`,
            family: 'mini',
            ratingAmps: 10,
            colour: 'red',
            state: 'fitted',
            x: 6 + (index % perRow) * 12,
            y: 6 + Math.floor(index / perRow) * 24,
            width: 6,
            height: 16,
            ...more(index),
          }),
        ),
      },
    ],
  };
}

/** A panel set that no vehicle has: boxes in which every slot lies in the same place. */
export function heapOfSlots(boxes: number, slots: number): object {
  const slot = (index: number) => ({
    id: `s${index}`,
    type: 'fuse',
    number: String(index),
    label: 'x'.repeat(60),
    family: 'mini',
    state: 'unknown',
    x: 1,
    y: 1,
    width: 5,
    height: 12,
  });
  const panel = (index: number) => ({
    id: `p${index}`,
    name: `Box ${index}`,
    place: 'bench',
    minutesToOpen: 0,
    opening: [],
    width: 200,
    height: 100,
    landmark: { name: 'hinge', edge: 'left' },
    slots: Array.from({ length: slots }, (_, one) => slot(one)),
  });
  return {
    format: 'every-trace/panel-set',
    version: 1,
    id: 'heap',
    name: 'A heap',
    panels: Array.from({ length: boxes }, (_, one) => panel(one)),
  };
}
