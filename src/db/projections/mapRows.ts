/** Version and counts of the newest version of a circuit and of a set of boxes, on their own row. */
import { sql } from 'drizzle-orm';
import { database, type WithinShop } from '../client';
import { circuits, circuitVersions, panelSets, panelSetVersions } from '../schema';

/** Counted from the newest versions, in the database: its files are many and large. */
export async function rebuildMapRows(within?: WithinShop): Promise<void> {
  const db = within?.tx ?? database();
  const own = (table: typeof circuits | typeof panelSets) =>
    within ? sql`and ${table}.shop_id = ${within.shopId}` : sql``;
  await db.execute(sql`
    update ${circuits} set version = newest.version, parts = newest.parts
    from (
      select distinct on (circuit_id) circuit_id, version, json_array_length(file -> 'parts') as parts
      from ${circuitVersions} order by circuit_id, version desc
    ) as newest
    where ${circuits}.id = newest.circuit_id ${own(circuits)}`);
  await db.execute(sql`
    update ${panelSets} set version = newest.version, panels = newest.panels, slots = newest.slots
    from (
      select distinct on (panel_set_id) panel_set_id, version, json_array_length(file -> 'panels') as panels,
        (select coalesce(sum(json_array_length(one -> 'slots')), 0)
         from json_array_elements(file -> 'panels') as one) as slots
      from ${panelSetVersions} order by panel_set_id, version desc
    ) as newest
    where ${panelSets}.id = newest.panel_set_id ${own(panelSets)}`);
}
