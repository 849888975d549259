/** Vehicles and their maps: circuits and panel sets, versioned, brought in from files. */

import { randomUUID } from 'node:crypto';
import { and, asc, count, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { cache } from 'react';
import { fitCircuit } from '#core/circuit/fit';
import { mergeCircuits } from '#core/circuit/merge';
import { checkCircuit } from '#core/format/checkCircuit';
import { checkPanelSet } from '#core/format/checkPanelSet';
import type { CircuitFile } from '#core/format/circuitSchema';
import type { PanelSetFile } from '#core/format/panelSchema';
import { type Checked, type Problem, readJson } from '#core/format/problem';
import { isUuid } from '#core/format/uuid';
import { circuitOfPattern, isNotation, type LoadWord, type Pattern, readCircuitText } from '#core/notation';
import { forSister } from '#core/panel/sister';
import { database, type Transaction } from '@/db/client';
import { circuits, circuitVersions, panelSets, panelSetVersions, vehicles } from '@/db/schema';
import type { Actor } from '@/features/shop/server';
import { type PartFact, withFact } from './fact';

export { type PartFact, readFact } from './fact';

export type Vehicle = typeof vehicles.$inferSelect;

export async function listVehicles(actor: Actor): Promise<Vehicle[]> {
  return database()
    .select()
    .from(vehicles)
    .where(eq(vehicles.shopId, actor.shopId))
    .orderBy(asc(vehicles.name));
}

/** Vehicles with what a new job asks about: the voltage, and whether any circuit is mapped. */
export async function knownVehicles(actor: Actor) {
  return database()
    .select({
      id: vehicles.id,
      name: vehicles.name,
      plate: vehicles.plate,
      nominalVolts: vehicles.nominalVolts,
      circuits: count(circuits.id),
    })
    .from(vehicles)
    .leftJoin(circuits, eq(circuits.vehicleId, vehicles.id))
    .where(eq(vehicles.shopId, actor.shopId))
    .groupBy(vehicles.id)
    .orderBy(asc(vehicles.name));
}

/** Vehicles with the names of their circuits, and whether they have boxes: what can be gone to. */
export async function vehiclesWithMaps(actor: Actor) {
  const db = database();
  const list = await listVehicles(actor);
  const ids = list.map((one) => one.id);
  // By vehicle, for which both tables have an index.
  const [maps, boxes] = await Promise.all([
    db
      .select({ vehicleId: circuits.vehicleId, fileId: circuits.fileId, name: circuits.name })
      .from(circuits)
      .where(inArray(circuits.vehicleId, ids))
      .orderBy(asc(circuits.name)),
    db.select({ vehicleId: panelSets.vehicleId }).from(panelSets).where(inArray(panelSets.vehicleId, ids)),
  ]);
  return list.map(({ id, name, plate }) => ({
    id,
    name,
    plate,
    circuits: maps.filter((one) => one.vehicleId === id),
    hasBoxes: boxes.some((one) => one.vehicleId === id),
  }));
}

export interface VehicleMaps {
  readonly vehicle: Vehicle;
  readonly circuits: readonly { id: string; version: number; madeAt: string; file: CircuitFile }[];
  readonly panelSet: { id: string; version: number; madeAt: string; file: PanelSetFile } | null;
}

/** A vehicle with the newest version of each map; null when the shop has none such. */
export const loadVehicle = cache(async (actor: Actor, vehicleId: string): Promise<VehicleMaps | null> => {
  if (!isUuid(vehicleId)) return null;
  const db = database();
  const [vehicle] = await db
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId)));
  if (!vehicle) return null;
  const [maps, panels] = await Promise.all([newestCircuits(db, [vehicleId]), newestPanelSet(db, vehicleId)]);
  return { vehicle, circuits: maps, panelSet: panels };
});

async function newestCircuits(db: Pick<Transaction, 'selectDistinctOn'>, vehicleIds: readonly string[]) {
  const rows = await db
    .selectDistinctOn([circuitVersions.circuitId], {
      id: circuits.id,
      name: circuits.name,
      version: circuitVersions.version,
      madeAt: circuitVersions.madeAt,
      file: circuitVersions.file,
    })
    .from(circuitVersions)
    .innerJoin(circuits, eq(circuits.id, circuitVersions.circuitId))
    .where(inArray(circuits.vehicleId, [...vehicleIds]))
    .orderBy(circuitVersions.circuitId, desc(circuitVersions.version));
  return rows.sort((one, other) => (one.name < other.name ? -1 : 1));
}

async function newestPanelSet(db: Pick<Transaction, 'select'>, vehicleId: string) {
  const [row] = await db
    .select({
      id: panelSets.id,
      version: panelSetVersions.version,
      madeAt: panelSetVersions.madeAt,
      file: panelSetVersions.file,
    })
    .from(panelSetVersions)
    .innerJoin(panelSets, eq(panelSets.id, panelSetVersions.panelSetId))
    .where(eq(panelSets.vehicleId, vehicleId))
    .orderBy(desc(panelSetVersions.version))
    .limit(1);
  return row ?? null;
}

/** A vehicle that nobody has recorded yet: a name is enough, the rest can come later. */
export async function addVehicle(
  actor: Actor,
  input: {
    readonly id: string;
    readonly name: string;
    readonly plate: string;
    readonly nominalVolts: number;
  },
): Promise<{ ok: true } | { ok: false; message: string }> {
  const plate = input.plate === '' ? `no plate (${input.id.slice(0, 4)})` : input.plate;
  const rows = await database()
    .insert(vehicles)
    .values({
      id: input.id,
      shopId: actor.shopId,
      name: input.name,
      make: '',
      model: '',
      plate,
      nominalVolts: input.nominalVolts,
    })
    .onConflictDoNothing()
    .returning({ id: vehicles.id });
  if (rows.length > 0) return { ok: true };
  const [same] = await database()
    .select({ id: vehicles.id })
    .from(vehicles)
    .where(and(eq(vehicles.id, input.id), eq(vehicles.shopId, actor.shopId)));
  // The same request once more: the vehicle is there already.
  return same
    ? { ok: true }
    : { ok: false, message: `A vehicle with the plate ${plate} is recorded already.` };
}

/** Puts the circuit of a pattern on a vehicle, beside those that it has; gives its file id and what fails in it. */
export async function addPattern(
  actor: Actor,
  vehicleId: string,
  pattern: Pattern,
  input: {
    readonly load: string;
    readonly kind: LoadWord;
    /** It is on when it should be off: the complaint is of a condition in which it should rest. */
    readonly unbidden?: boolean;
  },
): Promise<
  { ok: true; fileId: string; function: string; condition: string } | { ok: false; message: string }
> {
  const maps = await loadVehicle(actor, vehicleId);
  if (!maps) return { ok: false, message: 'There is no such vehicle in this shop.' };
  const { nominalVolts } = maps.vehicle;
  if (nominalVolts === null) {
    return { ok: false, message: 'Say the nominal voltage first: no verdict is given without it.' };
  }
  const made = circuitOfPattern(pattern, { ...input, nominalVolts });
  const circuit = fitCircuit(
    made.circuit,
    maps.circuits.map((one) => one.file),
  );
  const result = await importFile(actor, vehicleId, JSON.stringify(circuit));
  if (!result.ok) return { ok: false, message: result.problems.map((one) => one.message).join(' ') };
  const condition = input.unbidden ? made.restCondition : made.condition;
  const at = made.circuit.conditions.findIndex((one) => one.id === condition);
  const functionAt = made.circuit.functions.findIndex((one) => one.id === made.function);
  return {
    ok: true,
    fileId: circuit.id,
    function: circuit.functions[functionAt]!.id,
    condition: circuit.conditions[at]!.id,
  };
}

export async function setNominalVolts(actor: Actor, vehicleId: string, nominalVolts: number): Promise<void> {
  await database()
    .update(vehicles)
    .set({ nominalVolts })
    .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId), isNull(vehicles.nominalVolts)));
}

export type ImportResult =
  | { readonly ok: true; readonly sentence: string; readonly version: number }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** A circuit as JSON or as text, or a panel set. */
function readMap(text: string): Checked<CircuitFile | PanelSetFile> {
  if (isNotation(text)) return readCircuitText(text);
  const json = readJson(text);
  if (!json.ok) return json;
  const format = (json.value as { format?: unknown } | null)?.format;
  return format === 'every-trace/panel-set' ? checkPanelSet(json.value) : checkCircuit(json.value);
}

/**
 * Brings a circuit or panel-set file to a vehicle as a new version. Nothing is written when the file has
 * any problem, or when it disagrees with the vehicle's other circuits about a part they share; nor when it was
 * edited from another version (`base`, 0 for none) than the newest, for that would undo what somebody saved meanwhile.
 */
export async function importFile(
  actor: Actor,
  vehicleId: string,
  text: string,
  base: number | null = null,
): Promise<ImportResult> {
  const checked = readMap(text);
  if (!checked.ok) return checked;
  return database().transaction(async (tx) => {
    // The vehicle row is locked, so that two imports give two versions one after the other.
    const [vehicle] = await tx
      .select()
      .from(vehicles)
      .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId)))
      .for('update');
    if (!vehicle) {
      return {
        ok: false as const,
        problems: [{ code: 'unknown-vehicle', path: '', message: 'There is no such vehicle in this shop.' }],
      };
    }
    const file = checked.value;
    const late = (newest: { readonly version: number } | null | undefined) => {
      const version = newest?.version ?? 0;
      if (base === null || base === version) return null;
      const message = `${file.name} was saved by somebody else meanwhile, as version ${version}. Nothing was overwritten.`;
      return { ok: false as const, problems: [{ code: 'changed-meanwhile', path: '', message }] };
    };
    if ('panels' in file) {
      const refused = base === null ? null : late(await newestPanelSet(tx, vehicleId));
      return refused ?? importPanelSet(tx, actor, vehicleId, file);
    }
    const maps = await newestCircuits(tx, [vehicleId]);
    const refused = late(maps.find((one) => one.file.id === file.id));
    if (refused) return refused;
    const others = maps.map((one) => one.file).filter((one) => one.id !== file.id);
    const { problems } = mergeCircuits([...others, file]);
    if (problems.length > 0) return { ok: false as const, problems };
    if (vehicle.nominalVolts === null) {
      await tx.update(vehicles).set({ nominalVolts: file.nominalVolts }).where(eq(vehicles.id, vehicleId));
    } else if (vehicle.nominalVolts !== file.nominalVolts) {
      return {
        ok: false as const,
        problems: [
          {
            code: 'other-voltage',
            path: '/nominalVolts',
            message: `The file is for a ${file.nominalVolts} V system; this vehicle is recorded as ${vehicle.nominalVolts} V.`,
          },
        ],
      };
    }
    return importCircuit(tx, actor, vehicleId, file);
  });
}

/** Fields that a technician learns on the way; the rest is edited as a circuit. */
const LEARNED = [
  'name',
  'ratingAmps',
  'watts',
  'lengthMetres',
  'sizeMm2',
  'colour',
  'slot',
  'family',
  'state',
  'endA',
  'endB',
  'joints',
  'cavity',
  'face',
];

export type Learned = { ok: true; versions: ReadonlyMap<string, string> } | { ok: false; message: string };

/** What was learned of a part of a vehicle, as `learnIn` keeps it. */
export async function learnFact(actor: Actor, vehicleId: string, fact: PartFact): Promise<Learned> {
  return database().transaction((tx) => learnIn(tx, actor, vehicleId, fact));
}

/**
 * What was learned of a part, put into every circuit of the vehicle that has it, each as a new version. Gives the new
 * versions by circuit; writes nothing when the result would not be sound.
 */
export async function learnIn(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  fact: PartFact,
): Promise<Learned> {
  if (!isUuid(vehicleId)) {
    return { ok: false, message: 'There is no such vehicle in this shop.' };
  }
  const foreign = Object.keys(fact.fields).find((field) => !LEARNED.includes(field));
  if (foreign) return { ok: false, message: `“${foreign}” is not learned here; edit the circuit for it.` };
  const [vehicle] = await tx
    .select({ id: vehicles.id })
    .from(vehicles)
    .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId)))
    .for('update');
  if (!vehicle) return { ok: false, message: 'There is no such vehicle in this shop.' };
  const maps = await newestCircuits(tx, [vehicleId]);
  const changed = maps
    .filter((map) => map.file.parts.some((part) => part.id === fact.part))
    .map(({ id, file }) => ({
      id,
      file: {
        ...file,
        parts: file.parts.map((part) => (part.id === fact.part ? withFact(part, fact) : part)),
      },
    }));
  if (changed.length === 0) return { ok: false, message: `No circuit here has a part ${fact.part}.` };
  for (const { file } of changed) {
    const checked = checkCircuit(file);
    if (!checked.ok) return { ok: false, message: checked.problems.map((one) => one.message).join(' ') };
  }
  const versions = new Map<string, string>();
  for (const { id, file } of changed) {
    versions.set(id, (await importCircuit(tx, actor, vehicleId, file)).versionId);
  }
  return { ok: true, versions };
}

async function importCircuit(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  file: CircuitFile,
): Promise<Extract<ImportResult, { ok: true }> & { readonly versionId: string }> {
  const row = { id: randomUUID(), shopId: actor.shopId, vehicleId, fileId: file.id, name: file.name };
  const [circuit] = await tx
    .insert(circuits)
    .values(row)
    .onConflictDoUpdate({ target: [circuits.vehicleId, circuits.fileId], set: { name: file.name } })
    .returning();
  const [last] = await tx
    .select({ version: sql<number>`coalesce(max(${circuitVersions.version}), 0)`.mapWith(Number) })
    .from(circuitVersions)
    .where(eq(circuitVersions.circuitId, circuit!.id));
  const version = (last?.version ?? 0) + 1;
  const versionId = randomUUID();
  await tx.insert(circuitVersions).values({
    id: versionId,
    shopId: actor.shopId,
    circuitId: circuit!.id,
    version,
    file,
    madeBy: actor.personId,
  });
  return {
    ok: true,
    versionId,
    version,
    sentence: `${file.name} is in as version ${version}: ${file.parts.length} parts.`,
  };
}

async function importPanelSet(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  file: PanelSetFile,
): Promise<ImportResult> {
  const row = { id: randomUUID(), shopId: actor.shopId, vehicleId, fileId: file.id, name: file.name };
  const [set] = await tx
    .insert(panelSets)
    .values(row)
    .onConflictDoUpdate({ target: panelSets.vehicleId, set: { name: file.name, fileId: file.id } })
    .returning();
  const [last] = await tx
    .select({ version: sql<number>`coalesce(max(${panelSetVersions.version}), 0)`.mapWith(Number) })
    .from(panelSetVersions)
    .where(eq(panelSetVersions.panelSetId, set!.id));
  const version = (last?.version ?? 0) + 1;
  await tx.insert(panelSetVersions).values({
    id: randomUUID(),
    shopId: actor.shopId,
    panelSetId: set!.id,
    version,
    file,
    madeBy: actor.personId,
  });
  const slots = file.panels.reduce((sum, panel) => sum + panel.slots.length, 0);
  return {
    ok: true,
    version,
    sentence: `${file.name} is in as version ${version}: ${file.panels.length} boxes, ${slots} slots.`,
  };
}

export { type ShopSlot, searchShop } from './slotSearch';

/** Brings the newest boxes of one vehicle to a sister as a first map: every fact unverified there. */
export async function copyToSister(actor: Actor, fromId: string, toId: string): Promise<ImportResult> {
  const from = await loadVehicle(actor, fromId);
  if (!from?.panelSet) {
    const message = 'That vehicle has no boxes to copy.';
    return { ok: false, problems: [{ code: 'nothing-to-copy', path: '', message }] };
  }
  const to = await loadVehicle(actor, toId);
  if (to?.panelSet && to.panelSet.file.id !== from.panelSet.file.id) {
    const message = 'This vehicle has boxes of its own already. Nothing was changed.';
    return { ok: false, problems: [{ code: 'has-boxes', path: '', message }] };
  }
  return importFile(actor, toId, JSON.stringify(forSister(from.panelSet.file, from.vehicle.name)));
}
