/** Columns that the tables share. Every row belongs to a shop; composite keys keep one shop's rows from pointing into another's. */
import { customType, timestamp, uuid } from 'drizzle-orm/pg-core';

export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
/** Lexemes that a search is answered by; written by `array_to_tsvector`. */
export const tsvector = customType<{ data: string }>({ dataType: () => 'tsvector' });
export const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' });
export const shopId = () => uuid('shop_id').notNull();
