/**
 * What the search over a shop finds, as rows: each with the words that it answers to. Kept in the transaction that writes
 * what it stands for, and made anew from there.
 */
import { and, eq, type SQL, sql } from 'drizzle-orm';
import type { PanelSetFile } from '#core/format';
import { nameWords, slotSentence, slotWords, turnPanel, wordsOf } from '#core/panel';
import { database, type Transaction, type WithinShop } from '../client';
import {
  circuits,
  customers,
  jobs,
  panelSets,
  panelSetVersions,
  type SearchKind,
  searchEntries,
  vehicles,
} from '../schema';
import { transaction } from '../transaction';

interface OfShop {
  readonly shopId: string;
  readonly vehicleId: string;
}

/** Lexemes that bound a search: to a shop, a kind, a vehicle. No word of a text begins so. */
export const bound = {
  shop: (id: string) => `=shop ${id}`,
  kind: (kind: SearchKind) => `=kind ${kind}`,
  vehicle: (id: string) => `=vehicle ${id}`,
};

/** Longest lexeme, bytes: PostgreSQL takes 2046, a word of a text never needs as many. */
const LONGEST_WORD = 100;

function lexemes({ shopId, vehicleId }: OfShop, kind: SearchKind, words: readonly string[]): SQL {
  const short = words.map((word) => word.slice(0, LONGEST_WORD)).filter((word) => word !== '');
  const all = [...new Set([bound.shop(shopId), bound.kind(kind), bound.vehicle(vehicleId), ...short])];
  return sql`array_to_tsvector(${sql.param(all)}::text[])`;
}

type Entry = Omit<typeof searchEntries.$inferInsert, 'words' | 'shopId' | 'vehicleId'> & {
  readonly said: readonly string[];
};

/** Rows at once: PostgreSQL takes no more than 65535 values in a statement. */
const AT_ONCE = 500;

async function keep(tx: Transaction, of: OfShop, entries: readonly Entry[]): Promise<void> {
  for (let from = 0; from < entries.length; from += AT_ONCE) {
    const rows = entries
      .slice(from, from + AT_ONCE)
      .map(({ said, ...entry }) => ({ ...of, ...entry, words: lexemes(of, entry.kind, said) }));
    await tx
      .insert(searchEntries)
      .values(rows as unknown as (typeof searchEntries.$inferInsert)[])
      .onConflictDoUpdate({
        target: searchEntries.key,
        set: {
          name: sql`excluded.name`,
          detail: sql`excluded.detail`,
          href: sql`excluded.href`,
          slot: sql`excluded.slot`,
          sentence: sql`excluded.sentence`,
          words: sql`excluded.words`,
        },
      });
  }
}

interface NamedVehicle {
  readonly id: string;
  readonly shopId: string;
  readonly name: string;
  readonly plate: string;
}

/** A vehicle by its name, its plate, its make and model, what else it is called, and who brings it. */
export async function keepVehicle(
  tx: Transaction,
  vehicle: NamedVehicle & {
    readonly make: string;
    readonly model: string;
    readonly otherNames: string;
    readonly customerId: string | null;
    readonly archivedAt: string | null;
  },
): Promise<void> {
  const { id, shopId, name, plate, make, model, otherNames } = vehicle;
  const [customer] =
    vehicle.customerId === null
      ? []
      : await tx.select({ name: customers.name }).from(customers).where(eq(customers.id, vehicle.customerId));
  await keep(tx, { shopId, vehicleId: id }, [
    {
      key: `vehicle ${id}`,
      kind: 'vehicle',
      name,
      detail: vehicle.archivedAt === null ? plate : `${plate}, archived`,
      href: `/vehicles/${id}`,
      said: [
        ...nameWords(name, plate),
        ...wordsOf(`${make} ${model} ${customer?.name ?? ''}`),
        ...otherNames.split(',').flatMap((other) => nameWords(other, other)),
      ],
    },
  ]);
}

export async function keepCircuit(
  tx: Transaction,
  vehicle: NamedVehicle,
  circuit: { readonly id: string; readonly fileId: string; readonly name: string },
): Promise<void> {
  await keep(tx, { shopId: vehicle.shopId, vehicleId: vehicle.id }, [
    {
      key: `circuit ${circuit.id}`,
      kind: 'circuit',
      name: circuit.name,
      detail: `circuit of ${vehicle.name}`,
      href: `/vehicles/${vehicle.id}/circuits/${encodeURIComponent(circuit.fileId)}`,
      said: [...wordsOf(circuit.name), ...nameWords(vehicle.name, vehicle.plate)],
    },
  ]);
}

export async function keepJob(
  tx: Transaction,
  vehicle: NamedVehicle,
  job: { readonly id: string; readonly title: string },
): Promise<void> {
  await keep(tx, { shopId: vehicle.shopId, vehicleId: vehicle.id }, [
    {
      key: `job ${job.id}`,
      kind: 'job',
      name: job.title,
      detail: `job on ${vehicle.name}`,
      href: `/jobs/${job.id}`,
      said: [...wordsOf(job.title), ...nameWords(vehicle.name, vehicle.plate)],
    },
  ]);
}

/** The slots of a vehicle's newest boxes, in place of those of the version before. */
export async function keepSlots(tx: Transaction, vehicle: NamedVehicle, set: PanelSetFile): Promise<void> {
  const { id, shopId } = vehicle;
  await tx.delete(searchEntries).where(and(eq(searchEntries.vehicleId, id), eq(searchEntries.kind, 'slot')));
  const entries = set.panels.flatMap((panel) => {
    const upright = turnPanel(panel, 0);
    return panel.slots.map(
      (slot): Entry => ({
        key: `slot ${id} ${panel.id} ${slot.id}`,
        kind: 'slot',
        name: `${slot.type} ${slot.number}${slot.meaning ? ` · ${slot.meaning}` : ''}`,
        detail: `${vehicle.name}, ${panel.name}`,
        href: `/vehicles/${id}/panels?box=${panel.id}&slot=${slot.id}`,
        slot,
        sentence: slotSentence(upright, slot.id),
        said: slotWords(slot),
      }),
    );
  });
  await keep(tx, { shopId, vehicleId: id }, entries);
}

/** All that the search says of a vehicle, anew: its name stands in that of its circuits, jobs and slots. */
export async function keepAllOf(tx: Transaction, vehicleId: string): Promise<void> {
  await tx.delete(searchEntries).where(eq(searchEntries.vehicleId, vehicleId));
  const [vehicle] = await tx.select().from(vehicles).where(eq(vehicles.id, vehicleId));
  // One that turned out to be another is found under that one.
  if (!vehicle || vehicle.mergedInto !== null) return;
  await keepVehicle(tx, vehicle);
  for (const one of await tx.select().from(circuits).where(eq(circuits.vehicleId, vehicleId))) {
    await keepCircuit(tx, vehicle, one);
  }
  for (const one of await tx.select().from(jobs).where(eq(jobs.vehicleId, vehicleId))) {
    await keepJob(tx, vehicle, one);
  }
  const [boxes] = await tx
    .select({ file: panelSetVersions.file })
    .from(panelSets)
    .innerJoin(
      panelSetVersions,
      and(eq(panelSetVersions.panelSetId, panelSets.id), eq(panelSetVersions.version, panelSets.version)),
    )
    .where(eq(panelSets.vehicleId, vehicleId));
  if (boxes) await keepSlots(tx, vehicle, boxes.file);
}

/** All of it anew, of all shops, vehicle by vehicle. */
export async function rebuildSearch(within?: WithinShop): Promise<void> {
  const every = await (within?.tx ?? database())
    .select({ id: vehicles.id })
    .from(vehicles)
    .where(within ? eq(vehicles.shopId, within.shopId) : undefined);
  for (const { id } of every) {
    if (within) await keepAllOf(within.tx, id);
    else await transaction((tx) => keepAllOf(tx, id));
  }
}
