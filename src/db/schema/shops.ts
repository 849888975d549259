/** Shops and their people. */
import { sql } from 'drizzle-orm';
import { check, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { shopId } from './columns';

export const shops = pgTable('shops', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  town: text('town').notNull(),
});

export const people = pgTable(
  'people',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId().references(() => shops.id),
    name: text('name').notNull(),
    role: text('role').notNull(),
  },
  (table) => [
    unique('people_id_shop').on(table.id, table.shopId),
    check('people_role', sql`${table.role} in ('owner', 'technician', 'apprentice')`),
  ],
);
