/** Vehicles, their circuits and boxes, each with its versions. */
import { sql } from 'drizzle-orm';
import { check, foreignKey, index, integer, json, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { CircuitFile, PanelSetFile } from '#core/format';
import { instant, shopId } from './columns';
import { people, shops } from './shops';

/** Who brings vehicles and how they are reached: apart from the record of the work, and erased without harming it. */
export const customers = pgTable('customers', {
  id: uuid('id').primaryKey(),
  shopId: shopId().references(() => shops.id),
  name: text('name').notNull(),
  reach: text('reach').notNull().default(''),
});

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
    /** Other names that people call it by, for the search. */
    otherNames: text('other_names').notNull().default(''),
    customerId: uuid('customer_id'),
    /** Since when it is out of the lists; its record stays. */
    archivedAt: instant('archived_at'),
    /** The vehicle that it turned out to be. */
    mergedInto: uuid('merged_into'),
  },
  (table) => [
    foreignKey({
      name: 'vehicles_customer',
      columns: [table.customerId],
      foreignColumns: [customers.id],
    }).onDelete('set null'),
    unique('vehicles_id_shop').on(table.id, table.shopId),
    unique('vehicles_plate').on(table.shopId, table.plate),
    index('vehicles_by_name').on(table.shopId, table.name, table.id),
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
  // `version` and the counts beside it are those of the newest version.
};

export const circuits = pgTable(
  'circuits',
  {
    ...mapColumns,
    version: integer('version').notNull().default(0),
    parts: integer('parts').notNull().default(0),
  },
  (table) => [
    unique('circuits_id_shop').on(table.id, table.shopId),
    unique('circuits_file').on(table.vehicleId, table.fileId),
    foreignKey({
      name: 'circuits_vehicle',
      columns: [table.vehicleId, table.shopId],
      foreignColumns: [vehicles.id, vehicles.shopId],
    }),
  ],
);

export const panelSets = pgTable(
  'panel_sets',
  {
    ...mapColumns,
    version: integer('version').notNull().default(0),
    panels: integer('panels').notNull().default(0),
    slots: integer('slots').notNull().default(0),
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
