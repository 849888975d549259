/** Changes that a shop keeps for the next vehicle of the kind. */
import { json, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { Rests } from '#core/change';
import type { PlanFile } from '#core/format';
import { instant, shopId } from './columns';
import { shops } from './shops';

export const recipes = pgTable(
  'recipes',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId().references(() => shops.id),
    name: text('name').notNull(),
    plan: json('plan').$type<PlanFile>().notNull(),
    /** What it rests on, by the names of the vehicle that it was made on. */
    rests: json('rests').$type<Rests[]>().notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (table) => [unique('recipes_name').on(table.shopId, table.name)],
);
