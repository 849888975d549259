/** Jobs, their append-only log, their pictures. */
import { sql } from 'drizzle-orm';
import {
  check,
  foreignKey,
  index,
  integer,
  json,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import type { EventBody } from '#core/format';
import { bytea, instant, shopId } from './columns';
import { circuitVersions, panelSetVersions, vehicles } from './maps';
import { people } from './shops';

export const jobs = pgTable(
  'jobs',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    vehicleId: uuid('vehicle_id').notNull(),
    title: text('title').notNull(),
    openedBy: uuid('opened_by').notNull(),
    openedAt: instant('opened_at').notNull(),
    panelSetVersionId: uuid('panel_set_version_id'),
    /** Sequence of the last event; raised under this row's lock. */
    lastSeq: integer('last_seq').notNull().default(0),
  },
  (table) => [
    unique('jobs_id_shop').on(table.id, table.shopId),
    index('jobs_by_vehicle').on(table.shopId, table.vehicleId, table.openedAt),
    foreignKey({
      name: 'jobs_vehicle',
      columns: [table.vehicleId, table.shopId],
      foreignColumns: [vehicles.id, vehicles.shopId],
    }),
    foreignKey({
      name: 'jobs_person',
      columns: [table.openedBy, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }),
    foreignKey({
      name: 'jobs_panel_set',
      columns: [table.panelSetVersionId, table.shopId],
      foreignColumns: [panelSetVersions.id, panelSetVersions.shopId],
    }),
  ],
);

/** The circuit versions a job is traced on; they stay what they were. */
export const jobCircuits = pgTable(
  'job_circuits',
  {
    jobId: uuid('job_id').notNull(),
    circuitVersionId: uuid('circuit_version_id').notNull(),
    shopId: shopId(),
    position: integer('position').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.jobId, table.circuitVersionId] }),
    foreignKey({
      name: 'job_circuits_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }),
    foreignKey({
      name: 'job_circuits_version',
      columns: [table.circuitVersionId, table.shopId],
      foreignColumns: [circuitVersions.id, circuitVersions.shopId],
    }),
  ],
);

/** The log. A trigger refuses UPDATE and DELETE; the client makes the id, the server the sequence. */
export const jobEvents = pgTable(
  'job_events',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    seq: integer('seq').notNull(),
    personId: uuid('person_id').notNull(),
    kind: text('kind').notNull(),
    body: json('body').$type<EventBody>().notNull(),
    clientOrder: integer('client_order').notNull(),
    /** Of what it says, in the form of that time. */
    version: integer('version').notNull().default(1),
    /** The name that a job file gave, where it came in with one; `person_id` is who brought it in. */
    personName: text('person_name'),
    madeAt: instant('made_at').notNull(),
    arrivedAt: instant('arrived_at').notNull().defaultNow(),
  },
  (table) => [
    unique('job_events_seq').on(table.jobId, table.seq),
    index('job_events_struck')
      .on(table.jobId, sql`(${table.body} ->> 'of')`)
      .where(sql`${table.kind} = 'correction'`),
    // What was read in the slots of a vehicle, over all of its jobs.
    index('job_events_slot_readings').on(table.jobId, table.seq).where(sql`${table.kind} = 'slot-reading'`),
    check('job_events_from_one', sql`${table.seq} >= 1`),
    check('job_events_kind', sql`${table.kind} = ${table.body} ->> 'kind'`),
    foreignKey({
      name: 'job_events_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }),
    foreignKey({
      name: 'job_events_person',
      columns: [table.personId, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }),
  ],
);

/** Pictures of a job as they came in: scaled, turned upright and without position. Never changed, never deleted. */
export const photos = pgTable(
  'photos',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    personId: uuid('person_id').notNull(),
    kind: text('kind').notNull(),
    bytes: bytea('bytes').notNull(),
    /** SHA-256 of what was sent, in hex: the same picture again is a repeat, another under its id is not. */
    sentSha256: text('sent_sha256'),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (table) => [
    index('photos_by_job').on(table.jobId, table.madeAt),
    check('photos_kind', sql`${table.kind} in ('image/jpeg', 'image/png', 'image/webp')`),
    check('photos_size', sql`octet_length(${table.bytes}) between 1 and 4194304`),
    foreignKey({
      name: 'photos_job',
      columns: [table.jobId, table.shopId],
      foreignColumns: [jobs.id, jobs.shopId],
    }),
    foreignKey({
      name: 'photos_person',
      columns: [table.personId, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }),
  ],
);
