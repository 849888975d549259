import type { StockItem } from '../format';
import { changedItem } from './changedItem';

const was: StockItem = {
  id: 'a',
  sort: 'fuse',
  name: 'Mini blade 15 A',
  unit: 'piece',
  minimum: 5,
  reorder: 10,
};

test('two who change different fields both keep theirs', () => {
  const now = { ...was, minimum: 8 };
  expect(changedItem(was, now, { ...was, reorder: 25 })).toEqual({
    ok: true,
    item: { ...was, minimum: 8, reorder: 25 },
  });
});

test('the same field changed to the same value is no matter', () => {
  const now = { ...was, name: 'Mini blade 15 A, blue' };
  expect(changedItem(was, now, { ...now })).toEqual({ ok: true, item: now });
});

test('of the same field both values are said, and what else was typed is not kept either', () => {
  const now = { ...was, minimum: 8, name: 'Mini blade 15 A, blue' };
  const typed = { ...was, minimum: 3, reorder: 40 };
  const answer = changedItem(was, now, typed);
  expect(answer).toEqual({
    ok: false,
    seen: { ...was, minimum: 8 },
    message:
      'Somebody else has changed this item meanwhile. Least was “5”, is “8” now, and you typed “3”. Keep it again and yours stands.',
  });
  // Kept again, what was typed stands, and what the other has changed besides does too.
  expect(changedItem({ ...was, minimum: 8 }, now, typed)).toEqual({
    ok: true,
    item: { ...now, minimum: 3, reorder: 40 },
  });
});

test('what decides whether it is like another is one field', () => {
  const part = { kind: 'fuse', amps: 15 } as NonNullable<StockItem['part']>;
  expect(changedItem(was, { ...was, reorder: 1 }, { ...was, part })).toEqual({
    ok: true,
    item: { ...was, reorder: 1, part },
  });
  const other = { kind: 'fuse', amps: 20 } as NonNullable<StockItem['part']>;
  expect(changedItem(was, { ...was, part: other }, { ...was, part })).toMatchObject({
    ok: false,
    message: expect.stringContaining('Rating and type was not known, is amps 20 now, and you typed amps 15'),
  });
});
