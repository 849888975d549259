import fc from 'fast-check';
import { heapOfSlots } from '../../testing/panels';
import { checkPanelSet } from './checkPanelSet';
import { overlaps, type Rectangle } from './overlaps';
import { PROBLEM_LIMIT, readJson, VALUE_LIMIT } from './problem';

const rectangle = fc.record({
  x: fc.integer({ min: 0, max: 30 }),
  y: fc.integer({ min: 0, max: 30 }),
  width: fc.integer({ min: 1, max: 12 }),
  height: fc.integer({ min: 1, max: 12 }),
});

/** Two rectangles share ground when some square millimetre lies in both. */
function shareGround(one: Rectangle, other: Rectangle): boolean {
  for (let x = one.x; x < one.x + one.width; x++) {
    for (let y = one.y; y < one.y + one.height; y++) {
      if (x >= other.x && x < other.x + other.width && y >= other.y && y < other.y + other.height)
        return true;
    }
  }
  return false;
}

test('the sweep finds every pair that shares ground, once, and no other', () => {
  fc.assert(
    fc.property(fc.array(rectangle, { maxLength: 14 }), (list) => {
      const found = [...overlaps(list)]
        .map(([one, other]) => `${list.indexOf(one)} ${list.indexOf(other)}`)
        .sort();
      const wanted: string[] = [];
      for (let i = 0; i < list.length; i++) {
        for (let j = i + 1; j < list.length; j++)
          if (shareGround(list[i]!, list[j]!)) wanted.push(`${i} ${j}`);
      }
      expect(found).toEqual(wanted.sort());
    }),
  );
});

test('a box of slots all in one place is refused with as many problems as anyone reads, and the count of the rest', () => {
  const checked = checkPanelSet(heapOfSlots(2, 400));
  if (checked.ok) throw new Error('Slots lie over one another.');
  expect(checked.problems).toHaveLength(PROBLEM_LIMIT + 1);
  expect(checked.problems.at(-1)?.message).toBe(
    `${2 * ((400 * 399) / 2) - PROBLEM_LIMIT} further problems are not listed.`,
  );
});

test('a file of more values than any vehicle has is refused before it is looked through', () => {
  const checked = readJson(`{"parts":[${'0,'.repeat(VALUE_LIMIT)}0]}`);
  expect(checked.ok ? '' : checked.problems[0]?.code).toBe('too-large');
});
