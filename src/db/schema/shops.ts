/** Shops and their people. */
import { sql } from 'drizzle-orm';
import { boolean, check, jsonb, numeric, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { Hand, Role } from '#core/format';
import { instant, shopId } from './columns';
import { users } from './users';

export const shops = pgTable('shops', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  town: text('town').notNull(),
  /** What an hour costs, in the shop's currency; null where nobody has said. */
  hourlyRate: numeric('hourly_rate', { precision: 10, scale: 2, mode: 'number' }),
  /** Part of the address at which a calendar reads the follow-ups; null while nobody has asked for one. */
  feedToken: text('feed_token').unique(),
  /** Shown on loopback to whoever opens the program, and may be removed. */
  demo: boolean('demo').notNull().default(false),
});

export const people = pgTable(
  'people',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId().references(() => shops.id),
    name: text('name').notNull(),
    role: text('role').$type<Role>().notNull(),
    /** Whose account this is; null where nobody can sign in as this person. One account may be people of several shops. */
    userId: uuid('user_id').references(() => users.id, { onDelete: 'set null' }),
    /** Since when the person is no longer of the shop; what was done stays under the name. */
    leftAt: instant('left_at'),
    /** Hash by scrypt of the short code for phones of the shop. */
    codeHash: text('code_hash'),
    /** Instruments at hand and habits; null where nothing was said. */
    hand: jsonb('hand').$type<Hand>(),
  },
  (table) => [
    unique('people_id_shop').on(table.id, table.shopId),
    check('people_role', sql`${table.role} in ('owner', 'technician', 'learner')`),
    unique('people_user').on(table.shopId, table.userId),
  ],
);
