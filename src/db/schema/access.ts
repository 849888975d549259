/**
 * Who may come in: accounts and sessions (in the form that the sign-in library reads), links that let somebody in once,
 * links for guests, phones of a shop, codes for a helper at the key. Of every secret only its hash is kept, but for the
 * token of a session, which the library looks up.
 */
import { sql } from 'drizzle-orm';
import {
  bigint,
  check,
  foreignKey,
  index,
  json,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { instant, shopId } from './columns';
import { jobs } from './jobs';
import { people } from './shops';
import { users } from './users';

const moment = (name: string) => timestamp(name, { withTimezone: true });

/** What one installation keeps for itself, by name. */
export const installation = pgTable('installation', {
  key: text('key').primaryKey(),
  value: text('value').notNull(),
});

export const sessions = pgTable(
  'sessions',
  {
    id: uuid('id').primaryKey(),
    token: text('token').notNull().unique(),
    userId: uuid('user_id')
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    /** As whom, and so for which shop. */
    personId: uuid('person_id').references(() => people.id, { onDelete: 'cascade' }),
    /** How it was begun: by password, by the short code of a shop's phone, by a link. */
    begunBy: text('begun_by'),
    ipAddress: text('ip_address'),
    userAgent: text('user_agent'),
    expiresAt: moment('expires_at').notNull(),
    createdAt: moment('created_at').notNull().defaultNow(),
    updatedAt: moment('updated_at').notNull().defaultNow(),
  },
  (table) => [index('sessions_by_user').on(table.userId), index('sessions_by_person').on(table.personId)],
);

export const accounts = pgTable(
  'accounts',
  {
    id: uuid('id').primaryKey(),
    accountId: text('account_id').notNull(),
    providerId: text('provider_id').notNull(),
    userId: uuid('user_id')
      .notNull()
      .references(() => users.id, { onDelete: 'cascade' }),
    /** Hash by scrypt, with its salt. */
    password: text('password'),
    accessToken: text('access_token'),
    refreshToken: text('refresh_token'),
    idToken: text('id_token'),
    accessTokenExpiresAt: moment('access_token_expires_at'),
    refreshTokenExpiresAt: moment('refresh_token_expires_at'),
    scope: text('scope'),
    createdAt: moment('created_at').notNull().defaultNow(),
    updatedAt: moment('updated_at').notNull().defaultNow(),
  },
  (table) => [unique('accounts_of_user').on(table.userId, table.providerId)],
);

export const verifications = pgTable(
  'verifications',
  {
    id: uuid('id').primaryKey(),
    identifier: text('identifier').notNull(),
    value: text('value').notNull(),
    expiresAt: moment('expires_at').notNull(),
    createdAt: moment('created_at').notNull().defaultNow(),
    updatedAt: moment('updated_at').notNull().defaultNow(),
  },
  (table) => [index('verifications_by_identifier').on(table.identifier)],
);

/** How often something was tried: read and raised in one statement, by any number of processes. */
export const tries = pgTable('tries', {
  key: text('key').primaryKey(),
  points: bigint('points', { mode: 'number' }).notNull().default(0),
  expire: bigint('expire', { mode: 'number' }),
});

const madeBy = {
  madeBy: uuid('made_by'),
  madeAt: instant('made_at').notNull().defaultNow(),
  expiresAt: instant('expires_at').notNull(),
};

/** Links by which a person sets a password, once: the first, or a new one. */
export const entryLinks = pgTable(
  'entry_links',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    personId: uuid('person_id').notNull(),
    tokenHash: text('token_hash').notNull().unique(),
    ...madeBy,
    usedAt: instant('used_at'),
  },
  (table) => [
    index('entry_links_by_person').on(table.personId),
    foreignKey({
      name: 'entry_links_person',
      columns: [table.personId, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }).onDelete('cascade'),
  ],
);

/** Links by which somebody without an account reads one sheet. */
export const guestLinks = pgTable(
  'guest_links',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    /** Which sheet: the technician's, or the customer's. */
    sheet: text('sheet').$type<'technician' | 'customer'>().notNull(),
    /** For whom it was made, in the words of who made it. */
    forWhom: text('for_whom').notNull().default(''),
    tokenHash: text('token_hash').notNull().unique(),
    ...madeBy,
    endedAt: instant('ended_at'),
  },
  (table) => [
    index('guest_links_by_job').on(table.jobId),
    check('guest_links_sheet', sql`${table.sheet} in ('technician', 'customer')`),
    foreignKey({
      name: 'guest_links_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }).onDelete('cascade'),
  ],
);

/** Phones and tablets that several people of a shop share: on these a short code is enough after the first sign-in. */
export const shopDevices = pgTable(
  'shop_devices',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    name: text('name').notNull(),
    tokenHash: text('token_hash').notNull().unique(),
    ...madeBy,
    endedAt: instant('ended_at'),
  },
  (table) => [index('shop_devices_by_shop').on(table.shopId)],
);

/** Somebody at the key with a phone of their own: joins by a code, and sees the state that one card asks for. */
export const helpers = pgTable(
  'helpers',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    /** Hash of the code while a phone may join by it; null once it is over. */
    codeHash: text('code_hash').unique(),
    /** Hash of what the phone that joined carries; null before. */
    tokenHash: text('token_hash').unique(),
    /** Who is at the key, as that person has said. */
    name: text('name'),
    /** The card that waits and what has to be set for it. */
    asked: json('asked').$type<{ readonly card: string; readonly settings: readonly string[] }>(),
    /** The card for which it stands so, and since when. */
    standsFor: text('stands_for'),
    standsAt: instant('stands_at'),
    ...madeBy,
    endedAt: instant('ended_at'),
  },
  (table) => [
    index('helpers_by_job').on(table.jobId),
    foreignKey({
      name: 'helpers_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }).onDelete('cascade'),
  ],
);

/** Who has a job before them: kept up by the page, and of no meaning a minute later. */
export const presence = pgTable(
  'presence',
  {
    jobId: uuid('job_id').notNull(),
    personId: uuid('person_id').notNull(),
    /** Of one open page. */
    page: uuid('page').notNull(),
    shopId: shopId(),
    seenAt: instant('seen_at').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.jobId, table.page] }),
    foreignKey({
      name: 'presence_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }).onDelete('cascade'),
    foreignKey({
      name: 'presence_person',
      columns: [table.personId, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }).onDelete('cascade'),
  ],
);
