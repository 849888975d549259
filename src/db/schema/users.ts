/** Accounts of people, whatever shops they belong to; in the form that the sign-in library reads. */
import { boolean, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core';

export const users = pgTable('users', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  /** In small letters; one that ends in `.invalid` stands for none. */
  email: text('email').notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  /** The name that is typed to sign in, in small letters. */
  username: text('username').unique(),
  displayUsername: text('display_username'),
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
  updatedAt: timestamp('updated_at', { withTimezone: true }).notNull().defaultNow(),
});
