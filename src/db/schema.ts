/** The tables. Every row belongs to a shop; composite keys keep one shop's rows from pointing into another's. */
import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  customType,
  date,
  foreignKey,
  index,
  integer,
  json,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import type { BodyOf, CircuitFile, EventBody, PanelSetFile } from '#core/format';
import type { Progress } from '#core/log';

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' });
const shopId = () => uuid('shop_id').notNull();

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

export const vehicles = pgTable(
  'vehicles',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId().references(() => shops.id),
    name: text('name').notNull(),
    make: text('make').notNull(),
    model: text('model').notNull(),
    year: integer('year'),
    plate: text('plate').notNull(),
    nominalVolts: integer('nominal_volts'),
    odometerKm: integer('odometer_km'),
    notes: text('notes').notNull().default(''),
  },
  (table) => [
    unique('vehicles_id_shop').on(table.id, table.shopId),
    unique('vehicles_plate').on(table.shopId, table.plate),
    check('vehicles_volts', sql`${table.nominalVolts} in (6, 12, 24, 36, 48)`),
    check('vehicles_year', sql`${table.year} between 1900 and 2100`),
  ],
);

/** A circuit or a panel set: the thing that keeps its name while its versions come. */
const mapColumns = {
  id: uuid('id').primaryKey(),
  shopId: shopId(),
  vehicleId: uuid('vehicle_id').notNull(),
  /** The id inside the file. */
  fileId: text('file_id').notNull(),
  name: text('name').notNull(),
};

export const circuits = pgTable('circuits', mapColumns, (table) => [
  unique('circuits_id_shop').on(table.id, table.shopId),
  unique('circuits_file').on(table.vehicleId, table.fileId),
  foreignKey({
    name: 'circuits_vehicle',
    columns: [table.vehicleId, table.shopId],
    foreignColumns: [vehicles.id, vehicles.shopId],
  }),
]);

export const panelSets = pgTable(
  'panel_sets',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    vehicleId: uuid('vehicle_id').notNull(),
    fileId: text('file_id').notNull(),
    name: text('name').notNull(),
  },
  (table) => [
    unique('panel_sets_id_shop').on(table.id, table.shopId),
    unique('panel_sets_vehicle').on(table.vehicleId),
    foreignKey({
      name: 'panel_sets_vehicle_shop',
      columns: [table.vehicleId, table.shopId],
      foreignColumns: [vehicles.id, vehicles.shopId],
    }),
  ],
);

export const circuitVersions = pgTable(
  'circuit_versions',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    circuitId: uuid('circuit_id').notNull(),
    version: integer('version').notNull(),
    file: json('file').$type<CircuitFile>().notNull(),
    madeBy: uuid('made_by').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (table) => [
    unique('circuit_versions_id_shop').on(table.id, table.shopId),
    unique('circuit_versions_version').on(table.circuitId, table.version),
    check('circuit_versions_from_one', sql`${table.version} >= 1`),
    foreignKey({
      name: 'circuit_versions_circuit',
      columns: [table.circuitId, table.shopId],
      foreignColumns: [circuits.id, circuits.shopId],
    }),
    foreignKey({
      name: 'circuit_versions_person',
      columns: [table.madeBy, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }),
  ],
);

export const panelSetVersions = pgTable(
  'panel_set_versions',
  {
    id: uuid('id').primaryKey(),
    shopId: shopId(),
    panelSetId: uuid('panel_set_id').notNull(),
    version: integer('version').notNull(),
    file: json('file').$type<PanelSetFile>().notNull(),
    madeBy: uuid('made_by').notNull(),
    madeAt: instant('made_at').notNull().defaultNow(),
  },
  (table) => [
    unique('panel_set_versions_id_shop').on(table.id, table.shopId),
    unique('panel_set_versions_version').on(table.panelSetId, table.version),
    check('panel_set_versions_from_one', sql`${table.version} >= 1`),
    foreignKey({
      name: 'panel_set_versions_set',
      columns: [table.panelSetId, table.shopId],
      foreignColumns: [panelSets.id, panelSets.shopId],
    }),
    foreignKey({
      name: 'panel_set_versions_person',
      columns: [table.madeBy, table.shopId],
      foreignColumns: [people.id, people.shopId],
    }),
  ],
);

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
    madeAt: instant('made_at').notNull(),
    arrivedAt: instant('arrived_at').notNull().defaultNow(),
  },
  (table) => [
    unique('job_events_seq').on(table.jobId, table.seq),
    index('job_events_struck')
      .on(table.jobId, sql`(${table.body} ->> 'of')`)
      .where(sql`${table.kind} = 'correction'`),
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
    index('job_summaries_by_stage').on(table.shopId, table.stage, table.lastAt),
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
    index('findings_proved').on(table.shopId, table.arrivedAt).where(sql`${table.strength} = 'proved'`),
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
 * Watch items of jobs, as lists read them: one row for each that stands in the log, dealt with or not. Written in the
 * transaction that writes the events.
 */
export const followUps = pgTable(
  'follow_ups',
  {
    /** The entry that set it. */
    eventId: uuid('event_id').primaryKey(),
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
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
