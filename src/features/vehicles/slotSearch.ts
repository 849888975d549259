/** Slots of all vehicles of a shop found by words; the index is made anew when a map has changed. */
import { asc, desc, eq, sql } from 'drizzle-orm';
import { type IndexedSlot, plain, SlotIndex, slotSentence, turnPanel, wordsOf } from '#core/panel';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { panelSets, panelSetVersions, vehicles } from '@/db/schema';

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

export interface ShopVehicle {
  readonly id: string;
  readonly name: string;
  readonly plate: string;
}

export interface ShopFound {
  readonly vehicles: readonly ShopVehicle[];
  readonly slots: readonly ShopSlot[];
}

/**
 * Vehicles by name or plate, and slots of any vehicle by what they are called, best first. Words of both may stand
 * together: "MB 414 fuse 14" is fuse 14 of that vehicle.
 */
export async function searchShop(actor: Actor, text: string, limit = 30): Promise<ShopFound> {
  const [{ index, names }, all] = await Promise.all([indexOf(actor), namedVehicles(actor)]);
  const words = wordsOf(text);
  const named = vehiclesCalled(all, words);
  const found = index.find(text, limit);
  for (let at = 1; found.length === 0 && at < words.length; at++) {
    for (const [of, slot] of [
      [words.slice(0, at), words.slice(at)],
      [words.slice(at), words.slice(0, at)],
    ] as const) {
      const there = new Set(vehiclesCalled(all, of).map((one) => one.id));
      if (there.size === 0) continue;
      found.push(...index.find(slot.join(' '), 300).filter((hit) => there.has(hit.vehicle)));
    }
  }
  return {
    vehicles: named.slice(0, limit),
    slots: found.slice(0, limit).map(({ vehicle, panel, slot, because }) => ({
      vehicleId: vehicle,
      vehicle: names.get(vehicle) ?? '',
      panelId: panel.id,
      panel: panel.name,
      slotId: slot.id,
      name: `${slot.type} ${slot.number}${slot.meaning ? ` · ${slot.meaning}` : ''}`,
      because,
      sentence: slotSentence(turnPanel(panel, 0), slot.id),
    })),
  };
}

function namedVehicles(actor: Actor): Promise<ShopVehicle[]> {
  return database()
    .select({ id: vehicles.id, name: vehicles.name, plate: vehicles.plate })
    .from(vehicles)
    .where(eq(vehicles.shopId, actor.shopId))
    .orderBy(asc(vehicles.name));
}

/** By a part of the plate, however it is spaced, or by every word of the name. */
function vehiclesCalled(all: readonly ShopVehicle[], words: readonly string[]): ShopVehicle[] {
  const joined = plain(words.join(''));
  if (joined.length < 2) return [];
  return all.filter(({ name, plate }) => {
    const own = wordsOf(name);
    return plain(plate).includes(joined) || words.every((word) => own.some((one) => one.startsWith(word)));
  });
}
