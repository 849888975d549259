/** Shops and their people. */
import { sql } from 'drizzle-orm';
import { check, jsonb, numeric, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { Hand } from '#core/format';
import { shopId } from './columns';

export const shops = pgTable('shops', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  town: text('town').notNull(),
  /** What an hour costs, in the shop's currency; null where nobody has said. */
  hourlyRate: numeric('hourly_rate', { precision: 10, scale: 2, mode: 'number' }),
  /** Part of the address at which a calendar reads the follow-ups; null while nobody has asked for one. */
  feedToken: text('feed_token').unique(),
});

export const people = pgTable(
  'people',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId().references(() => shops.id),
    name: text('name').notNull(),
    role: text('role').notNull(),
    /** Instruments at hand and habits; null where nothing was said. */
    hand: jsonb('hand').$type<Hand>(),
  },
  (table) => [
    unique('people_id_shop').on(table.id, table.shopId),
    check('people_role', sql`${table.role} in ('owner', 'technician', 'apprentice')`),
  ],
);
