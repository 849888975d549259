/** What requests made, and from when a shop counts what it has learned. */
import { foreignKey, index, json, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { instant, shopId } from './columns';
import { people } from './shops';

/** From when on a shop's proved jobs count towards its own fault weights; the latest row counts. */
export const learningResets = pgTable(
  'learning_resets',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    personId: uuid('person_id').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (table) => [
    index('learning_resets_by_shop').on(table.shopId, table.madeAt),
    foreignKey({
      name: 'learning_resets_person',
      columns: [table.personId, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }),
  ],
);

/**
 * Requests that make something, by the id that the client gave them: a repeat gets the answer of the first and makes
 * nothing. A request that was refused leaves no row.
 */
export const requests = pgTable(
  'requests',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    personId: uuid('person_id').notNull(),
    kind: text('kind').notNull(),
    /** Null only inside the transaction that makes it. */
    answer: json('answer'),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (table) => [
    foreignKey({
      name: 'requests_person',
      columns: [table.personId, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }),
  ],
);
