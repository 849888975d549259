/** The stock in a real database: moves that stay, sums that are theirs, the last piece taken by two at once. */
import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import fc from 'fast-check';
import pg from 'pg';
import type { EventBody, StockItem, StockRequest } from '#core/format';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { rebuildProjections } from '@/db/projections';
import { stockMoves } from '@/db/schema';
import { appendEvents, openJob } from '@/features/jobs/server';
import { listVehicles } from '@/features/vehicles/server';
import { demoActor, stranger, withDatabase } from '../../../testing/database';
import { changeStock, movesOf, shortItems, stockOf } from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

let actor: Actor;
let van: string;
let bench: string;
beforeAll(async () => {
  actor = await demoActor();
  const { places } = await stockOf(actor);
  van = places.find(({ sort }) => sort === 'van')!.id;
  bench = places.find(({ sort }) => sort === 'bench')!.id;
});

type Ask<K extends StockRequest['kind']> = Omit<Extract<StockRequest, { kind: K }>, 'id' | 'kind'>;
const ask = <K extends StockRequest['kind']>(kind: K, fields: Ask<K>, who = actor) =>
  changeStock(who, { kind, id: randomUUID(), ...fields } as unknown as StockRequest);

async function freshItem(more: Partial<StockItem> = {}): Promise<StockItem> {
  const item: StockItem = {
    id: randomUUID(),
    sort: 'other',
    name: `thing ${randomUUID()}`,
    unit: 'piece',
    minimum: 0,
    reorder: 0,
    ...more,
  };
  expect(await ask('item', { item })).toEqual({ ok: true });
  return item;
}

async function there(item: string, place?: string): Promise<number> {
  const level = (await stockOf(actor)).levels.find((one) => one.item.id === item)!;
  return place === undefined ? level.total : (level.at.find((one) => one.place === place)?.count ?? 0);
}

const book = (item: string, place: string, count: number, words = '') =>
  ask('booked', { item, place, count, words });
const scrap = (item: string, place: string, count: number, allTheSame?: boolean) =>
  ask('scrapped', { item, place, count, words: '', ...(allTheSame ? { allTheSame } : {}) });

test('in, out, moved and counted: what is there is the sum, and a repeat changes nothing', async () => {
  const { id } = await freshItem();
  await book(id, van, 5);
  await scrap(id, van, 2);
  expect(await ask('moved', { item: id, from: van, to: bench, count: 1, words: 'to the bench' })).toEqual({
    ok: true,
  });
  expect([await there(id, van), await there(id, bench), await there(id)]).toEqual([2, 1, 3]);
  await ask('counted', { place: van, counts: [{ item: id, count: 4.5 }] });
  expect(await there(id, van)).toBe(4.5);
  // What was counted as it is leaves no move.
  const before = (await movesOf(actor, id)).length;
  await ask('counted', { place: van, counts: [{ item: id, count: 4.5 }] });
  expect((await movesOf(actor, id)).length).toBe(before);
  const again = { kind: 'booked' as const, id: randomUUID(), item: id, place: van, count: 3, words: '' };
  await changeStock(actor, again);
  await changeStock(actor, again);
  expect(await there(id, van)).toBe(7.5);
});

test('nothing is taken below nothing unless somebody says so, and then it is said where it is read', async () => {
  const item = await freshItem({ minimum: 2, reorder: 10 });
  await book(item.id, van, 1);
  expect(await scrap(item.id, van, 2)).toMatchObject({
    ok: false,
    allTheSame: true,
    message: expect.stringContaining('has 1 of'),
  });
  expect(await there(item.id)).toBe(1);
  expect(await scrap(item.id, van, 2, true)).toEqual({ ok: true });
  expect(await there(item.id)).toBe(-1);
  expect((await shortItems(actor)).map((one) => one.item.id)).toContain(item.id);
  expect(await ask('moved', { item: item.id, from: van, to: van, count: 1, words: '' })).toMatchObject({
    ok: false,
  });
});

test('two who take the last piece at once: one has it, the other is told', async () => {
  const { id } = await freshItem();
  await book(id, van, 1);
  const answers = await Promise.all([scrap(id, van, 1), scrap(id, van, 1), scrap(id, van, 1)]);
  expect(answers.filter(({ ok }) => ok)).toHaveLength(1);
  expect(await there(id)).toBe(0);
});

test('moves cannot be changed or deleted, by whatever way', async () => {
  const { id } = await freshItem();
  await book(id, van, 1);
  const db = database();
  await expect(db.delete(stockMoves).where(eq(stockMoves.itemId, id)).execute()).rejects.toThrow();
  await expect(
    db.update(stockMoves).set({ count: 9 }).where(eq(stockMoves.itemId, id)).execute(),
  ).rejects.toThrow();
  expect(await there(id)).toBe(1);
});

describe('used on a job', () => {
  async function job() {
    const jobId = randomUUID();
    const vehicle = (await listVehicles(actor))[0]!;
    await openJob(actor, { id: jobId, vehicleId: vehicle.id, title: 'Lamp dead' });
    let order = 0;
    return async (body: EventBody, id = randomUUID()) => {
      const event = { id, jobId, madeAt: new Date().toISOString(), clientOrder: order++, body };
      expect(await appendEvents(actor, [event])).toMatchObject({ ok: true });
      return event;
    };
  }
  const repair = (item: string, count: number, place = van): EventBody => ({
    kind: 'repair',
    words: 'Renewed',
    partsUsed: [{ name: 'thing', count, from: 'stock', stock: { item, place } }],
    temporary: false,
  });

  test('a repair takes its parts out, once; struck, they come back, once, and both moves stay', async () => {
    const { id } = await freshItem();
    await book(id, van, 5);
    const add = await job();
    const made = await add(repair(id, 2));
    await appendEvents(actor, [made]);
    expect(await there(id)).toBe(3);
    await add({ kind: 'correction', of: made.id });
    expect(await there(id)).toBe(5);
    await add({ kind: 'correction', of: made.id });
    await rebuildProjections();
    expect(await there(id)).toBe(5);
    expect((await movesOf(actor, id)).map(({ sort }) => sort).sort()).toEqual([
      'booked',
      'given-back',
      'used',
    ]);
  });

  test('the last piece used on two jobs away from each other is written down, and the count says so', async () => {
    const { id } = await freshItem();
    await book(id, van, 1);
    const [one, other] = [await job(), await job()];
    await Promise.all([one(repair(id, 1)), other(repair(id, 1))]);
    expect(await there(id)).toBe(-1);
  });

  test('an item of nobody, or of another shop, is no hindrance to the repair', async () => {
    const add = await job();
    await add(repair(randomUUID(), 1));
    const away = await stranger();
    const theirs = await stockOf(away);
    expect(theirs.levels).toEqual([]);
  });
});

test('another shop neither sees nor moves it', async () => {
  const { id, ...item } = await freshItem();
  await book(id, van, 4);
  const away = await stranger();
  expect((await stockOf(away)).levels).toEqual([]);
  expect(await ask('booked', { item: id, place: van, count: 1, words: '' }, away)).toMatchObject({
    ok: false,
  });
  expect(await ask('item', { item: { ...item, id } }, away)).toMatchObject({ ok: false });
  expect(await ask('counted', { place: van, counts: [{ item: id, count: 0 }] }, away)).toMatchObject({
    ok: false,
  });
  expect(await movesOf(away, id)).toEqual([]);
  expect(await there(id)).toBe(4);
});

test('two items of one name are refused, one by one and in a list; of a refused list nothing is kept', async () => {
  const item = await freshItem();
  expect(await ask('item', { item: { ...item, id: randomUUID() } })).toMatchObject({ ok: false });
  const before = (await stockOf(actor)).levels.length;
  const fresh = { ...item, id: randomUUID(), name: `new ${randomUUID()}` };
  expect(
    await ask('import', { place: van, items: [fresh, { ...item, id: randomUUID() }], counts: [] }),
  ).toMatchObject({ ok: false });
  expect((await stockOf(actor)).levels.length).toBe(before);
});

test('two thousand rows come in by as many statements as twenty, and each is there as the list says', async () => {
  const list = (count: number, run: string) =>
    Array.from(
      { length: count },
      (_, at): StockItem => ({
        id: randomUUID(),
        sort: 'other',
        name: `Clip ${run} ${at}`,
        unit: 'piece',
        minimum: at % 7,
        reorder: 0,
      }),
    );
  const query = jest.spyOn(pg.Client.prototype, 'query');
  const brought = async (items: readonly StockItem[]) => {
    query.mockClear();
    const counts = items.map(({ id }, at) => ({ item: id, count: at % 5 }));
    expect(await ask('import', { place: van, items: [...items], counts })).toEqual({ ok: true });
    return query.mock.calls.length;
  };
  const many = list(2000, 'many');
  const few = await brought(list(20, 'few'));
  expect(await brought(many)).toBe(few);
  query.mockRestore();
  const { levels } = await stockOf(actor);
  const by = new Map(levels.map((level) => [level.item.id, level]));
  expect(many.every((item, at) => by.get(item.id)?.total === at % 5)).toBe(true);
  expect(many.every((item, at) => by.get(item.id)?.item.minimum === at % 7)).toBe(true);
  // Once more with other numbers: what is known is put right, nothing is doubled.
  const again = many.map((item) => ({ ...item, minimum: 9 }));
  expect(await ask('import', { place: van, items: again, counts: [] })).toEqual({ ok: true });
  const after = (await stockOf(actor)).levels.filter(({ item }) => item.name.startsWith('Clip many'));
  expect([after.length, new Set(after.map(({ item }) => item.minimum))]).toEqual([2000, new Set([9])]);
});

test('six who make an item of one name at once make one; six places of one name are one', async () => {
  const name = `Mini blade ${randomUUID()}`;
  const item = { sort: 'fuse', unit: 'piece', minimum: 0, reorder: 0, name } as const;
  const made = await Promise.all(
    Array.from({ length: 6 }, () => ask('item', { item: { ...item, id: randomUUID() } })),
  );
  expect(made.filter(({ ok }) => ok)).toHaveLength(1);
  expect((await stockOf(actor)).levels.filter((one) => one.item.name === name)).toHaveLength(1);
  const shelf = { name: `Shelf ${randomUUID()}`, sort: 'shelf' } as const;
  const places = await Promise.all(
    Array.from({ length: 6 }, () => ask('place', { place: { ...shelf, id: randomUUID() } })),
  );
  expect(places.filter(({ ok }) => ok)).toHaveLength(1);
});

test('two people on one item: different fields are both kept; of one field the second is told both values, and may insist', async () => {
  const was = await freshItem({ minimum: 5, reorder: 10 });
  const itemNow = async () => (await stockOf(actor)).levels.find((one) => one.item.id === was.id)!.item;
  expect(await ask('item', { item: { ...was, minimum: 8 }, was })).toEqual({ ok: true });
  expect(await ask('item', { item: { ...was, reorder: 25 }, was })).toEqual({ ok: true });
  expect(await itemNow()).toMatchObject({ minimum: 8, reorder: 25 });
  const refused = await ask('item', { item: { ...was, minimum: 3 }, was });
  expect(refused).toMatchObject({
    ok: false,
    message: expect.stringContaining('Least was “5”, is “8” now, and you typed “3”.'),
    seen: { minimum: 8, reorder: 10 },
  });
  expect(await itemNow()).toMatchObject({ minimum: 8, reorder: 25 });
  const { seen } = refused as { seen: StockItem };
  // As the form sends it again: what was typed, and the rest as it was shown at first.
  expect(await ask('item', { item: { ...was, minimum: 3 }, was: seen })).toEqual({ ok: true });
  expect(await itemNow()).toMatchObject({ minimum: 3, reorder: 25 });
});

test('whatever is asked, in whatever order, what is there is the sum of its moves', async () => {
  const { id } = await freshItem();
  const count = fc.integer({ min: 1, max: 40 }).map((many) => many / 4);
  const place = fc.constantFrom('van', 'bench');
  const asked = fc.oneof(
    fc.record({ kind: fc.constant('booked' as const), place, count }),
    fc.record({ kind: fc.constant('scrapped' as const), place, count }),
    fc.record({ kind: fc.constant('counted' as const), place, count }),
    fc.record({ kind: fc.constant('moved' as const), place, count }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(asked, { minLength: 1, maxLength: 8 }), async (all) => {
      await Promise.all(
        all.map((one) => {
          const at = one.place === 'van' ? van : bench;
          const move = { item: id, count: one.count, words: '' };
          if (one.kind === 'counted')
            return ask('counted', { place: at, counts: [{ item: id, count: one.count }] });
          if (one.kind === 'moved') return ask('moved', { ...move, from: at, to: at === van ? bench : van });
          return ask(one.kind, { ...move, place: at });
        }),
      );
      const rows = await database()
        .select({ place: stockMoves.placeId, sum: sql<string>`sum(${stockMoves.count})` })
        .from(stockMoves)
        .where(eq(stockMoves.itemId, id))
        .groupBy(stockMoves.placeId);
      for (const row of rows) {
        expect(await there(id, row.place)).toBeCloseTo(Number(row.sum), 9);
        // Nobody said that it may go below nothing.
        expect(Number(row.sum)).toBeGreaterThanOrEqual(0);
      }
    }),
    { numRuns: 15 },
  );
  const kept = (await stockOf(actor)).levels;
  await rebuildProjections();
  expect((await stockOf(actor)).levels).toEqual(kept);
}, 60_000);
