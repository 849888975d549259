/** The stock: sums, what is short, what is ordered, whether a part is in the van; and its CSV, there and back. */
import fc from 'fast-check';
import type { KindOfPart, StockItem, StockPlace } from '../format';
import {
  availability,
  isShort,
  itemsLike,
  levelsOf,
  orderCsv,
  orderList,
  previewStockCsv,
  stockCsv,
  toOrder,
  whyNotMoved,
} from '.';

const id = (index: number) => `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`;
const fuse = (ratingAmps: number, family: 'mini' | 'regular' = 'mini'): KindOfPart => ({
  kind: 'fuse',
  family,
  ratingAmps,
});
const item = (index: number, more: Partial<StockItem> = {}): StockItem => ({
  id: id(index),
  sort: 'fuse',
  name: `item ${index}`,
  unit: 'piece',
  minimum: 0,
  reorder: 0,
  ...more,
});
const VAN: StockPlace = { id: id(90), name: 'Blue van', sort: 'van' };
const BENCH: StockPlace = { id: id(91), name: 'Bench', sort: 'bench' };
const places = [VAN, BENCH];
const at = (one: number, place: StockPlace, count: number) => ({ item: id(one), place: place.id, count });

test('what is there is the sum of the moves, place by place, and tenths add up', () => {
  const [wire] = levelsOf(
    [item(1, { unit: 'metre' })],
    [at(1, VAN, 0.1), at(1, VAN, 0.2), at(1, BENCH, 5), at(1, BENCH, -1.5)],
  );
  expect(wire).toMatchObject({
    total: 3.8,
    at: [
      { place: VAN.id, count: 0.3 },
      { place: BENCH.id, count: 3.5 },
    ],
  });
  expect(levelsOf([item(2)], [])[0]).toMatchObject({ total: 0, at: [] });
});

// Minimum, ordered at once, there (null: never any): short or not, and how many are ordered.
test.each([
  [5, 10, 5, false, 0],
  [5, 10, 4, true, 10],
  [5, 3, 0, true, 6],
  [5, 0, 2, true, 3],
  [5, 0, null, true, 5],
  [0, 10, null, false, 0],
  // The last one is gone: there should be one again, whatever the minimum.
  [0, 10, 0, true, 10],
  [0, 0, 0, true, 1],
  [0, 0.5, 0, true, 0.5],
  [0, 0, 1, false, 0],
  // Used more than was ever booked in.
  [0, 10, -1, true, 10],
  [0, 0, -2, true, 3],
  [12.5, 5, 3, true, 10],
])('at least %p, %p at once, %p there', (minimum, reorder, there, short, order) => {
  const at = there === null ? [] : [{ place: VAN.id, count: there }];
  const level = { item: item(1, { minimum, reorder }), at, total: there ?? 0 };
  expect(isShort(level)).toBe(short);
  expect(toOrder(level)).toBe(order);
});

test('the order list has what is short and nothing else, as CSV with its counts', () => {
  const levels = levelsOf(
    [item(1, { name: 'Mini 15 A', minimum: 5, reorder: 10 }), item(2)],
    [at(1, VAN, 2)],
  );
  const list = orderList(levels);
  expect(list).toMatchObject([{ item: { name: 'Mini 15 A' }, total: 2, order: 10 }]);
  expect(orderCsv(list)).toBe('sort,name,there,minimum,order,unit\r\nfuse,Mini 15 A,2,5,10,piece\r\n');
});

test('more than is there is taken only by somebody’s saying so', () => {
  expect(whyNotMoved(item(1), VAN, 1, 1)).toBeNull();
  expect(whyNotMoved(item(1, { name: 'Mini 15 A' }), VAN, 1, 2)).toContain(
    'Blue van has 1 of Mini 15 A, not 2',
  );
});

describe('whether the part is in the van', () => {
  const levels = levelsOf(
    [
      item(1, { part: fuse(15) }),
      item(2, { part: fuse(20) }),
      item(3, { part: fuse(15, 'regular') }),
      item(4, { name: '15 A, family not read', part: { kind: 'fuse', ratingAmps: 15 } }),
    ],
    [at(1, BENCH, 3), at(2, VAN, 2), at(3, VAN, 9), at(4, VAN, 4)],
  );
  const stock = { levels, places };

  test('only what is like it counts: not the other family, not the next rating, not what nobody has read', () => {
    expect(itemsLike(stock, fuse(15), 12).map((one) => one.item.id)).toEqual([id(1)]);
    expect(availability(stock, fuse(15), 12, VAN.id)).toEqual({
      here: false,
      words: 'No mini, 15 A in Blue van; Bench has 3',
    });
    expect(availability(stock, fuse(20), 12, VAN.id)).toEqual({
      here: true,
      words: 'Blue van: 2 of mini, 20 A',
    });
    expect(availability(stock, fuse(30), 12, VAN.id)).toEqual({
      here: false,
      words: 'No mini, 30 A in Blue van',
    });
  });

  test('a part that the map does not know, and a shop that keeps no stock, are not spoken of', () => {
    expect(availability(stock, { kind: 'fuse', ratingAmps: 15 }, 12, VAN.id)).toBeNull();
    expect(availability({ levels: [], places }, fuse(15), 12, VAN.id)).toBeNull();
  });

  test('less than nothing is none', () => {
    const used = { levels: levelsOf([item(1, { part: fuse(15) })], [at(1, VAN, -1)]), places };
    expect(availability(used, fuse(15), 12, VAN.id)).toMatchObject({ here: false });
  });
});

describe('CSV', () => {
  let next = 500;
  const newId = () => id(next++);

  test('five kinds of mistakes are told by their rows, and the rest can be taken', () => {
    const text = [
      'Kind;Item;Qty;Min;Rating;Family;Colour of bag',
      'fuse;Mini 10 A;12;5;10;mini;red',
      'fuses;Mini 15 A;-3;5;15;mini;blue',
      'gadget;Thing;1;0;;;',
      'fuse;;4;0;10;mini;',
      'fuse;Mini 20 A;2;0;twenty;mini;',
      'fuse;mini 10 a;1;0;10;mini;',
      'fuse;Mini 25 A;2;0;25;tiny;',
    ].join('\n');
    const preview = previewStockCsv(text, [], newId);
    expect(preview.matched).toEqual(['sort', 'name', 'count', 'minimum', 'ratingAmps', 'family', null]);
    expect(preview.rows.map(({ item: { name }, count }) => [name, count])).toEqual([['Mini 10 A', 12]]);
    expect(preview.problems.map(({ row, column }) => [row, column])).toEqual([
      [3, 'count'],
      [4, 'sort'],
      [5, 'name'],
      [6, 'ratingAmps'],
      [7, 'name'],
      [8, 'family'],
    ]);
  });

  test('what is wrong with the file as a whole: no name, two of one, nothing in it', () => {
    expect(previewStockCsv('sort,count\nfuse,2', [], newId).problems).toMatchObject([
      { row: 0, column: 'name' },
    ]);
    expect(previewStockCsv('sort,name,item\nfuse,a,b', [], newId).problems).toMatchObject([
      { column: 'name' },
    ]);
    expect(previewStockCsv('  ', [], newId).problems[0]?.message).toContain('nothing');
  });

  test('an item that is known keeps its id, and what the file does not say of it', () => {
    const known = item(7, { name: 'Mini 15 A', minimum: 4, part: fuse(15) });
    const preview = previewStockCsv('sort,name,reorder\nfuse,MINI 15 A,20', [known], newId);
    expect(preview.rows).toEqual([
      { row: 2, isNew: false, count: null, item: { ...known, name: 'MINI 15 A', reorder: 20 } },
    ]);
  });

  const some = fc
    .uniqueArray(
      fc.record({
        name: fc
          .string({ minLength: 1, maxLength: 30, unit: 'grapheme' })
          .map((name) => name.replace(/\p{C}/gu, '').trim())
          .filter((name) => name !== '' && /[\p{L}\p{N}]/u.test(name)),
        part: fc.constantFrom<KindOfPart | undefined>(
          undefined,
          fuse(7.5),
          { kind: 'wire', sizeMm2: 2.5, celsius: 105, terminalMm2: [1, 2.5] },
          {
            kind: 'relay',
            footprint: 'mini',
            contact: 'changeover',
            coilVolts: 24,
            suppression: 'diode',
            plusPin: '86',
          },
          { kind: 'connector', series: 'S2', cavities: 4, sealed: false },
        ),
        minimum: fc.integer({ min: 0, max: 99999 }).map((many) => many / 1000),
        count: fc.integer({ min: 0, max: 10_000_000 }).map((many) => many / 1000),
      }),
      { minLength: 1, maxLength: 12, selector: ({ name }) => name.toLowerCase() },
    )
    .map((rows) =>
      rows.map(({ part, ...row }, index) => ({
        count: row.count,
        item: item(index, {
          name: row.name,
          minimum: row.minimum,
          sort: part?.kind ?? 'other',
          ...(part ? { part } : {}),
        }),
      })),
    );

  test('what goes out comes in as it was, whatever names people give', () => {
    fc.assert(
      fc.property(some, (rows) => {
        const levels = levelsOf(
          rows.map((row) => row.item),
          rows.map(({ item: { id: one }, count }) => ({ item: one, place: VAN.id, count })),
        );
        const back = previewStockCsv(
          stockCsv(levels),
          rows.map((row) => row.item),
          newId,
        );
        expect(back.problems).toEqual([]);
        expect(back.rows.map(({ item: one, count }) => ({ item: one, count }))).toEqual(
          rows.map(({ item: one, count }) => ({ item: one, count })),
        );
      }),
      { numRuns: 300 },
    );
  });
});
