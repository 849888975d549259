/** The stock: items, places, the moves whose sum is what is there, and that sum as rows. */
import { sql } from 'drizzle-orm';
import {
  check,
  foreignKey,
  index,
  integer,
  json,
  numeric,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import type { StockItem } from '#core/format';
import { instant, shopId } from './columns';
import { jobs } from './jobs';
import { vehicles } from './maps';
import { people, shops } from './shops';

export const stockItems = pgTable(
  'stock_items',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId().references(() => shops.id),
    sort: text('sort').$type<StockItem['sort']>().notNull(),
    name: text('name').notNull(),
    /** What decides whether it is like another; null where only its name is known. */
    part: json('part').$type<NonNullable<StockItem['part']>>(),
    unit: text('unit').$type<StockItem['unit']>().notNull(),
    minimum: numeric('minimum', { precision: 12, scale: 3, mode: 'number' }).notNull(),
    reorder: numeric('reorder', { precision: 12, scale: 3, mode: 'number' }).notNull(),
  },
  (table) => [
    unique('stock_items_id_shop').on(table.id, table.shopId),
    index('stock_items_by_name').on(table.shopId, table.sort, table.name),
    check('stock_items_not_negative', sql`${table.minimum} >= 0 and ${table.reorder} >= 0`),
  ],
);

export const stockPlaces = pgTable(
  'stock_places',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId().references(() => shops.id),
    name: text('name').notNull(),
    sort: text('sort').$type<'van' | 'bench' | 'shelf' | 'vehicle'>().notNull(),
    /** Whose own spares these are. */
    vehicleId: uuid('vehicle_id'),
  },
  (table) => [
    unique('stock_places_id_shop').on(table.id, table.shopId),
    unique('stock_places_name').on(table.shopId, table.name),
    foreignKey({
      name: 'stock_places_vehicle',
      columns: [table.vehicleId, table.shopId],
      foreignColumns: [vehicles.id, vehicles.shopId],
    }),
  ],
);

/** A trigger refuses UPDATE and DELETE: what was wrong is put right by another move. */
export const stockMoves = pgTable(
  'stock_moves',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    shopId: shopId(),
    itemId: uuid('item_id').notNull(),
    placeId: uuid('place_id').notNull(),
    personId: uuid('person_id').notNull(),
    sort: text('sort').notNull(),
    /** What comes in is positive. */
    count: numeric('count', { precision: 12, scale: 3, mode: 'number' }).notNull(),
    words: text('words').notNull().default(''),
    /** The entry of a job that took it, and its line. */
    jobId: uuid('job_id'),
    eventId: uuid('event_id'),
    line: integer('line'),
    /** The request that made it. */
    requestId: uuid('request_id'),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (table) => [
    index('stock_moves_by_item').on(table.itemId, table.placeId),
    index('stock_moves_by_shop').on(table.shopId, table.madeAt),
    unique('stock_moves_of_entry').on(table.eventId, table.line, table.sort),
    check(
      'stock_moves_sort',
      sql`${table.sort} in ('booked', 'used', 'given-back', 'counted', 'scrapped', 'moved')`,
    ),
    foreignKey({
      name: 'stock_moves_item',
      columns: [table.itemId, table.shopId],
      foreignColumns: [stockItems.id, stockItems.shopId],
    }),
    foreignKey({
      name: 'stock_moves_place',
      columns: [table.placeId, table.shopId],
      foreignColumns: [stockPlaces.id, stockPlaces.shopId],
    }),
    foreignKey({
      name: 'stock_moves_person',
      columns: [table.personId, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }),
    foreignKey({
      name: 'stock_moves_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }),
  ],
);

/**
 * The sum of the moves of each item at each place, so that nobody has to add them up. A trigger on the moves keeps it, in
 * their transaction; `db/projections/stockRows.ts` makes it anew.
 */
export const stockLevels = pgTable(
  'stock_levels',
  {
    shopId: shopId(),
    itemId: uuid('item_id').notNull(),
    placeId: uuid('place_id').notNull(),
    count: numeric('count', { precision: 18, scale: 3, mode: 'number' }).notNull(),
  },
  (table) => [
    primaryKey({ name: 'stock_levels_of_place', columns: [table.itemId, table.placeId] }),
    index('stock_levels_by_shop').on(table.shopId),
    foreignKey({
      name: 'stock_levels_item',
      columns: [table.itemId, table.shopId],
      foreignColumns: [stockItems.id, stockItems.shopId],
    }),
    foreignKey({
      name: 'stock_levels_place',
      columns: [table.placeId, table.shopId],
      foreignColumns: [stockPlaces.id, stockPlaces.shopId],
    }),
  ],
);
