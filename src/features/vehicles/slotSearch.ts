/** Slots of all vehicles of a shop found by words; the index is made anew when a map has changed. */
import { desc, eq, sql } from 'drizzle-orm';
import { slotSentence } from '#core/panel/sentence';
import { type IndexedSlot, SlotIndex } from '#core/panel/slotIndex';
import { turnPanel } from '#core/panel/turn';
import { database } from '@/db/client';
import { panelSets, panelSetVersions, vehicles } from '@/db/schema';
import type { Actor } from '@/features/shop/server';

export interface ShopSlot {
  readonly vehicleId: string;
  readonly vehicle: string;
  readonly panelId: string;
  readonly panel: string;
  readonly slotId: string;
  readonly name: string;
  readonly because: string;
  readonly sentence: string;
}

const indexes = new Map<string, { stamp: string; index: SlotIndex; names: ReadonlyMap<string, string> }>();

async function indexOf(actor: Actor) {
  const db = database();
  const [stamp] = await db
    .select({
      of: sql<string>`count(*) || ' ' || coalesce(max(${panelSetVersions.madeAt})::text, '')`,
    })
    .from(panelSetVersions)
    .where(eq(panelSetVersions.shopId, actor.shopId));
  const known = indexes.get(actor.shopId);
  if (known && known.stamp === stamp?.of) return known;
  const rows = await db
    .selectDistinctOn([panelSetVersions.panelSetId], {
      vehicleId: vehicles.id,
      vehicle: vehicles.name,
      file: panelSetVersions.file,
    })
    .from(panelSetVersions)
    .innerJoin(panelSets, eq(panelSets.id, panelSetVersions.panelSetId))
    .innerJoin(vehicles, eq(vehicles.id, panelSets.vehicleId))
    .where(eq(panelSetVersions.shopId, actor.shopId))
    .orderBy(panelSetVersions.panelSetId, desc(panelSetVersions.version));
  const slots = rows.flatMap((row) =>
    row.file.panels.flatMap((panel) =>
      panel.slots.map((slot): IndexedSlot => ({ vehicle: row.vehicleId, panel, slot })),
    ),
  );
  const made = {
    stamp: stamp?.of ?? '',
    index: new SlotIndex(slots),
    names: new Map(rows.map((row) => [row.vehicleId, row.vehicle])),
  };
  indexes.set(actor.shopId, made);
  return made;
}

/** Best hits first: vehicle, box, slot, and the sentence that leads to it. */
export async function searchShop(actor: Actor, text: string): Promise<ShopSlot[]> {
  const { index, names } = await indexOf(actor);
  return index.find(text, 30).map(({ vehicle, panel, slot, because }) => ({
    vehicleId: vehicle,
    vehicle: names.get(vehicle) ?? '',
    panelId: panel.id,
    panel: panel.name,
    slotId: slot.id,
    name: `${slot.type} ${slot.number}${slot.meaning ? ` · ${slot.meaning}` : ''}`,
    because,
    sentence: slotSentence(turnPanel(panel, 0), slot.id),
  }));
}
