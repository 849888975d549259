/** Rows that lists and searches read, kept by small steps from what is recorded (`db/projections/`) and made anew from it. */
import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  date,
  foreignKey,
  index,
  integer,
  json,
  pgTable,
  text,
  uuid,
} from 'drizzle-orm/pg-core';
import type { BodyOf, Slot } from '#core/format';
import type { FollowUpSort, HazardSort, Progress } from '#core/log';
import { instant, shopId, tsvector } from './columns';
import { jobs } from './jobs';
import { vehicles } from './maps';
import { people } from './shops';

export type SearchKind = 'vehicle' | 'circuit' | 'job' | 'slot';

/** What is kept beside the columns of a job's row so that the next entry can be added to it. */
type KeptProgress = Omit<Progress, 'complaint' | 'found' | 'readings'> & {
  /** Entries that a correction has struck before they came. */
  readonly early: readonly string[];
};

/** What lists show of a job, written in the transaction that writes its events. */
export const jobSummaries = pgTable(
  'job_summaries',
  {
    jobId: uuid('job_id').primaryKey(),
    shopId: shopId(),
    stage: text('stage').notNull(),
    complaint: text('complaint').notNull(),
    found: text('found'),
    readings: integer('readings').notNull(),
    lastSeq: integer('last_seq').notNull(),
    lastAt: instant('last_at').notNull(),
    /** What the next entry is added to, so that nobody has to read the log for it. */
    progress: json('progress').$type<KeptProgress>(),
  },
  (table) => [
    // Lists go from one row to the next by these, open and closed apart.
    index('job_summaries_open')
      .on(table.shopId, table.lastAt, table.jobId)
      .where(sql`${table.stage} <> 'closed'`),
    index('job_summaries_closed')
      .on(table.shopId, table.lastAt, table.jobId)
      .where(sql`${table.stage} = 'closed'`),
    index('job_summaries_latest').on(table.shopId, table.lastAt),
    foreignKey({
      name: 'job_summaries_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }),
  ],
);

/** What stands as found in a job, as a form of fault: what the shop learns its weights from. */
export const findings = pgTable(
  'findings',
  {
    jobId: uuid('job_id').primaryKey(),
    shopId: shopId(),
    eventId: uuid('event_id').notNull(),
    /** Kind of part and mode of fault; null where it was not said. */
    partKind: text('part_kind'),
    mode: text('mode'),
    strength: text('strength').notNull(),
    arrivedAt: instant('arrived_at').notNull(),
  },
  (table) => [
    index('findings_proved')
      .on(table.shopId, table.partKind, table.mode, table.arrivedAt)
      .where(sql`${table.strength} = 'proved'`),
    foreignKey({
      name: 'findings_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }),
  ],
);

/** What was seen in the slots of a vehicle, over all of its jobs. */
export const slotSightings = pgTable(
  'slot_sightings',
  {
    /** The entry that says it. */
    eventId: uuid('event_id').primaryKey(),
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    vehicleId: uuid('vehicle_id').notNull(),
    personId: uuid('person_id').notNull(),
    seq: integer('seq').notNull(),
    madeAt: instant('made_at').notNull(),
    body: json('body').$type<BodyOf<'slot-state'>>().notNull(),
  },
  (table) => [
    index('slot_sightings_by_vehicle').on(table.shopId, table.vehicleId, table.madeAt),
    index('slot_sightings_by_job').on(table.jobId),
    foreignKey({
      name: 'slot_sightings_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }),
    foreignKey({
      name: 'slot_sightings_person',
      columns: [table.personId, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }),
  ],
);

/**
 * What somebody has to come back to, as lists read it: one row for each that stands in the log, dealt with or not. Written in the
 * transaction that writes the events.
 */
export const followUps = pgTable(
  'follow_ups',
  {
    /** The entry that set it. */
    eventId: uuid('event_id').primaryKey(),
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    sort: text('sort').$type<FollowUpSort>().notNull().default('watch'),
    words: text('words').notNull(),
    /** Not said where it is only to be kept in mind. */
    due: date('due', { mode: 'string' }),
    done: boolean('done').notNull(),
  },
  (table) => [
    index('follow_ups_open').on(table.shopId, table.due, table.eventId).where(sql`not ${table.done}`),
    index('follow_ups_by_job').on(table.jobId),
    foreignKey({
      name: 'follow_ups_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }),
  ],
);

/** What is not as it should be on a vehicle, until it is put right: seen on its page and where the day starts. */
export const hazards = pgTable(
  'hazards',
  {
    /** The entry that made it. */
    eventId: uuid('event_id').primaryKey(),
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    vehicleId: uuid('vehicle_id').notNull(),
    sort: text('sort').$type<HazardSort>().notNull().default('exchanged'),
    words: text('words').notNull(),
    /** Of a temporary part: by when the right one is in. */
    due: date('due', { mode: 'string' }),
    personId: uuid('person_id'),
    since: instant('since').notNull(),
    over: boolean('over').notNull(),
  },
  (table) => [
    index('hazards_open').on(table.shopId, table.since, table.eventId).where(sql`not ${table.over}`),
    index('hazards_by_vehicle').on(table.vehicleId).where(sql`not ${table.over}`),
    index('hazards_by_job').on(table.jobId),
    foreignKey({
      name: 'hazards_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }),
  ],
);

/**
 * What the search over a shop finds: vehicles, circuits, jobs and slots, each with the words that it answers to.
 * Besides these the lexemes hold `=shop`, `=kind` and `=vehicle`, so that one index answers the whole question.
 */
export const searchEntries = pgTable(
  'search_entries',
  {
    /** "vehicle ID", "job ID", "circuit ID", "slot VEHICLE BOX SLOT". */
    key: text('key').primaryKey(),
    shopId: shopId(),
    vehicleId: uuid('vehicle_id').notNull(),
    kind: text('kind').$type<SearchKind>().notNull(),
    name: text('name').notNull(),
    /** Where it is, in words. */
    detail: text('detail').notNull(),
    href: text('href').notNull(),
    /** Of a slot: itself, for judging how well it answers, and the sentence to it. */
    slot: json('slot').$type<Slot>(),
    sentence: text('sentence'),
    words: tsvector('words').notNull(),
  },
  (table) => [
    index('search_entries_words').using('gin', table.words),
    index('search_entries_of_vehicle').on(table.vehicleId, table.kind),
    check('search_entries_kind', sql`${table.kind} in ('vehicle', 'circuit', 'job', 'slot')`),
    foreignKey({
      name: 'search_entries_vehicle',
      columns: [table.vehicleId, table.shopId],
      foreignColumns: [vehicles.id, vehicles.shopId],
    }),
  ],
);
