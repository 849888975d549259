/**
 * `npm run bench -- stock`: what is short of a stock of 100,000 moves, read from the kept levels and by adding up the
 * moves, turn by turn; and a list of 2,000 items read as the page does and taken in as the server does.
 */
import { randomUUID } from 'node:crypto';
import { sql } from 'drizzle-orm';
import type { StockRequest } from '#core/format';
import { levelsOf, previewStockCsv } from '#core/stock';
import { ensurePackages, POSTGRES } from '../scripts/lib/setUp.mjs';
import { bin, run } from '../scripts/lib/shell.mjs';
import { openTestBed } from '../scripts/lib/testBed.mjs';
import { closeDatabase, database } from '../src/db/client';
import { stockMoves } from '../src/db/schema';
import { changeStock, shortItems, stockOf } from '../src/features/stock/server';
import { demoActor } from '../testing/database';

const MOVES = 100_000;
const ITEMS = 2_000;
const ROUNDS = 21;

async function timed<T>(work: () => Promise<T> | T): Promise<{ ms: number; made: T }> {
  const began = performance.now();
  const made = await work();
  return { ms: performance.now() - began, made };
}

function middle(values: readonly number[]): number {
  return values.toSorted((one, other) => one - other)[Math.floor(values.length / 2)] ?? Number.NaN;
}

export async function benchStock(): Promise<void> {
  ensurePackages([POSTGRES]);
  run(bin('tsx'), ['scripts/build-schemas.ts']);
  const bed = await openTestBed();
  try {
    process.env.DATABASE_URL = bed.adminUrl.replace(/\/[^/]*$/, '/bench_stock');
    run(bin('tsx'), ['scripts/migrate.ts', '--demo'], { env: process.env });
    const actor = await demoActor();
    const before = await stockOf(actor);
    const place = before.places[0]!.id;

    const lines = Array.from(
      { length: ITEMS },
      (_, at) => `other,Thing ${at},,${(at % 7) + 1},${(at % 7) + 9},${at % 40}`,
    );
    const csv = ['sort,name,rating,minimum,reorder,count', ...lines].join('\n');
    const page = await timed(() =>
      previewStockCsv(
        csv,
        before.levels.map(({ item }) => item),
        randomUUID,
      ),
    );
    const { rows } = page.made;
    const request: StockRequest = {
      kind: 'import',
      id: randomUUID(),
      place,
      items: rows.map(({ item }) => item),
      counts: rows.flatMap(({ item, count }) => (count === null ? [] : [{ item: item.id, count }])),
    };
    const server = await timed(() => changeStock(actor, request));
    if (!server.made.ok) throw new Error(server.made.message);
    console.log(
      `A list of ${rows.length} items: read by the page in ${(page.ms / 1000).toFixed(2)} s, taken in by the server in ${(server.ms / 1000).toFixed(2)} s (1 s together wanted)`,
    );

    await database().execute(sql`
      insert into ${stockMoves} (shop_id, item_id, place_id, person_id, sort, count)
      select ${actor.shopId}, stock_items.id, ${place}, ${actor.personId}, 'booked', 1
      from stock_items, generate_series(1, ${Math.ceil(MOVES / ITEMS)}) where shop_id = ${actor.shopId}
      limit ${MOVES}`);
    await database().execute(sql`vacuum analyze`);
    const { levels } = await stockOf(actor);
    const items = levels.map(({ item }) => item);
    const kept: number[] = [];
    const added: number[] = [];
    let wrong = 0;
    for (let round = 0; round < ROUNDS; round++) {
      kept.push((await timed(() => shortItems(actor))).ms);
      const summed = await timed(async () => {
        const { rows: sums } = await database().execute<{ item: string; place: string; count: number }>(sql`
          select item_id as item, place_id as place, sum(count)::float8 as count from ${stockMoves}
          where shop_id = ${actor.shopId} group by item_id, place_id`);
        return levelsOf(items, sums);
      });
      added.push(summed.ms);
      const totals = new Map(summed.made.map(({ item, total }) => [item.id, total]));
      wrong = levels.filter(({ item, total }) => totals.get(item.id) !== total).length;
    }
    console.log(
      `What is short, of ${MOVES} moves of ${items.length} items: ${middle(kept).toFixed(0)} ms from kept levels, ${middle(added).toFixed(0)} ms by adding up, ratio ${(middle(kept) / middle(added)).toFixed(2)}; ${wrong} levels differ`,
    );
    if (wrong > 0) process.exitCode = 1;
  } finally {
    await closeDatabase();
    bed.close(false);
  }
}
