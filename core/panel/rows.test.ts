/** Rows of a box: one rule for the sentence to a slot and for the way of a thumb. */
import fc from 'fast-check';
import { renumbered, slotRows } from './rows';

interface One {
  readonly id: number;
  readonly x: number;
  readonly y: number;
  readonly height: number;
}
const kind = () => 'fuse';
const slot = fc.record({ x: fc.nat(200), y: fc.nat(120), height: fc.integer({ min: 4, max: 40 }) });

test('every slot stands in one row, each row goes from left to right, whatever the order they were drawn in', () => {
  fc.assert(
    fc.property(fc.array(slot, { maxLength: 40 }), (places) => {
      const slots = places.map((one, id): One => ({ ...one, id }));
      const rows = slotRows(slots, kind);
      expect(
        rows
          .flat()
          .map((one) => one.id)
          .sort((a, b) => a - b),
      ).toEqual(slots.map((one) => one.id));
      for (const row of rows) {
        const across = row.map((one) => one.x);
        expect(across).toEqual(across.slice().sort((a, b) => a - b));
      }
    }),
  );
});

test('a row that sinks a little from slot to slot does not turn round and round', () => {
  // Each is within half a height of the next, the last far below the first: a comparison of pairs has no order here.
  const slots = Array.from({ length: 9 }, (_, id): One => ({ id, x: (8 - id) * 10, y: id * 4, height: 10 }));
  const once = slotRows(slots, kind).flat();
  expect(slotRows(slots.slice().reverse(), kind).flat()).toEqual(once);
  expect(slotRows(slots, kind).map((row) => row.map((one) => one.id))).toEqual([
    [1, 0],
    [3, 2],
    [5, 4],
    [7, 6],
    [8],
  ]);
});

test('numbers go on from one that is put right, up to what is no number', () => {
  const order = ['1', '2', '3', 'MF', '5'].map((number, index) => ({ id: `s${index}`, number }));
  expect(renumbered(order, 's1', '12')).toEqual([
    { id: 's1', number: '12' },
    { id: 's2', number: '13' },
  ]);
  expect(renumbered(order, 's1', 'A4')).toEqual([{ id: 's1', number: 'A4' }]);
  expect(renumbered(order, 'none', '1')).toEqual([]);
});
