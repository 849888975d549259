/** Vehicles and their maps: circuits and panel sets, versioned, brought in from files. */

import { randomUUID } from 'node:crypto';
import { and, asc, count, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { cache } from 'react';
import { checkCircuit, fitCircuit, mergeCircuits, namesOfParts, renamedAfterParts } from '#core/circuit';
import {
  type CircuitFile,
  checkPanelSet,
  type ImportRequest,
  isUuid,
  type PanelSetFile,
  type PartFact,
  type Problem,
} from '#core/format';
import { circuitOfPattern, type LoadWord, type Pattern } from '#core/notation';
import { forSister, mergePanelSets } from '#core/panel';
import type { Actor } from '@/access';
import { database, type Transaction } from '@/db/client';
import { all, once } from '@/db/once';
import { circuits, circuitVersions, panelSets, panelSetVersions, vehicles } from '@/db/schema';
import { readMap } from '@/workers/mapReader';
import { changedMeanwhile, withFact } from './fact';

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
  tx: Transaction,
  actor: Actor,
  input: {
    readonly id: string;
    readonly name: string;
    readonly plate: string;
    readonly nominalVolts: number;
  },
): Promise<{ ok: true } | { ok: false; message: string }> {
  const plate = input.plate.trim() === '' ? `no plate (${input.id.slice(0, 4)})` : input.plate.trim();
  const rows = await tx
    .insert(vehicles)
    .values({
      id: input.id,
      shopId: actor.shopId,
      name: input.name.trim(),
      make: '',
      model: '',
      plate,
      nominalVolts: input.nominalVolts,
    })
    .onConflictDoNothing()
    .returning({ id: vehicles.id });
  if (rows.length > 0) return { ok: true };
  const [same] = await tx
    .select({ id: vehicles.id })
    .from(vehicles)
    .where(and(eq(vehicles.id, input.id), eq(vehicles.shopId, actor.shopId)));
  // The vehicle of an earlier try is there already.
  return same
    ? { ok: true }
    : { ok: false, message: `A vehicle with the plate ${plate} is recorded already.` };
}

/** Puts the circuit of a pattern on a vehicle, beside those that it has; gives its file id and what fails in it. */
export async function addPattern(
  tx: Transaction,
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
  const vehicle = await lockedVehicle(tx, actor, vehicleId);
  if (!vehicle) return { ok: false, message: NO_SUCH_VEHICLE };
  const { nominalVolts } = vehicle;
  if (nominalVolts === null) {
    return { ok: false, message: 'Say the nominal voltage first: no verdict is given without it.' };
  }
  const made = circuitOfPattern(pattern, { ...input, nominalVolts });
  const known = (await newestCircuits(tx, [vehicleId])).map((one) => one.file);
  const circuit = fitCircuit(made.circuit, known);
  const checked = checkCircuit(circuit);
  if (!checked.ok) return { ok: false, message: checked.problems.map((one) => one.message).join(' ') };
  const result = await importIn(tx, actor, vehicleId, checked.value);
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

export async function setNominalVolts(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  nominalVolts: number,
): Promise<void> {
  await tx
    .update(vehicles)
    .set({ nominalVolts })
    .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId), isNull(vehicles.nominalVolts)));
}

const NO_SUCH_VEHICLE = 'There is no such vehicle in this shop.';

/** The vehicle row, locked, so that two who change its maps do it one after the other; null where there is none. */
async function lockedVehicle(tx: Transaction, actor: Actor, vehicleId: string): Promise<Vehicle | null> {
  if (!isUuid(vehicleId)) return null;
  const [vehicle] = await tx
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId)))
    .for('update');
  return vehicle ?? null;
}

export type ImportResult =
  | {
      readonly ok: true;
      readonly sentence: string;
      readonly version: number;
      /** The set as it is now, where it was joined with what somebody saved meanwhile. */
      readonly joined?: PanelSetFile;
    }
  | {
      readonly ok: false;
      readonly problems: readonly Problem[];
      /** The newest version, where that is what stands against it. */
      readonly newest?: { readonly version: number; readonly joined?: PanelSetFile };
    };

function refused(code: string, message: string, path = ''): Extract<ImportResult, { ok: false }> {
  return { ok: false, problems: [{ code, path, message }] };
}

/**
 * Brings a circuit or panel-set file to a vehicle as a new version. Nothing is written when the file has
 * any problem, or when it disagrees with the vehicle's other circuits about a part they share. What was edited from
 * another version (`base`, 0 for none) than the newest is joined with it where it is boxes, and refused where it is a
 * circuit or where both changed the same field, for that would undo what somebody saved meanwhile. The same request
 * again answers what the first made.
 */
export async function importFile(
  actor: Actor,
  vehicleId: string,
  { id, text, base }: ImportRequest,
): Promise<ImportResult> {
  const checked = await readMap(text);
  if (!checked.ok) return checked;
  const made = await once<ImportResult>(actor, { id, kind: `import ${vehicleId}` }, (tx) =>
    importIn(tx, actor, vehicleId, checked.value, base ?? null),
  );
  return 'message' in made ? refused('id-taken', made.message) : made;
}

/** The same inside a transaction of somebody else, of a file that was checked. */
export async function importIn(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  file: CircuitFile | PanelSetFile,
  base: number | null = null,
): Promise<ImportResult> {
  const vehicle = await lockedVehicle(tx, actor, vehicleId);
  if (!vehicle) return refused('unknown-vehicle', NO_SUCH_VEHICLE);
  if ('panels' in file) return importBoxes(tx, actor, vehicleId, file, base);
  const maps = await newestCircuits(tx, [vehicleId]);
  const newest = maps.find((one) => one.file.id === file.id)?.version ?? 0;
  if (base !== null && base !== newest) {
    return { ...savedMeanwhile(file.name, newest), newest: { version: newest } };
  }
  const others = maps.map((one) => one.file).filter((one) => one.id !== file.id);
  const { problems } = mergeCircuits([...others, file]);
  if (problems.length > 0) return { ok: false, problems };
  if (vehicle.nominalVolts === null) {
    await tx.update(vehicles).set({ nominalVolts: file.nominalVolts }).where(eq(vehicles.id, vehicleId));
  } else if (vehicle.nominalVolts !== file.nominalVolts) {
    return refused(
      'other-voltage',
      `The file is for a ${file.nominalVolts} V system; this vehicle is recorded as ${vehicle.nominalVolts} V.`,
      '/nominalVolts',
    );
  }
  return importCircuit(tx, actor, vehicleId, file);
}

function savedMeanwhile(name: string, version: number) {
  return refused(
    'changed-meanwhile',
    `${name} was saved by somebody else meanwhile, as version ${version}. Nothing was overwritten.`,
  );
}

async function importBoxes(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  file: PanelSetFile,
  base: number | null,
): Promise<ImportResult> {
  const newest = await newestPanelSet(tx, vehicleId);
  if (base === null || base === (newest?.version ?? 0) || !newest) {
    return importPanelSet(tx, actor, vehicleId, file);
  }
  const [began] = await tx
    .select({ file: panelSetVersions.file })
    .from(panelSetVersions)
    .where(and(eq(panelSetVersions.panelSetId, newest.id), eq(panelSetVersions.version, base)));
  const { set, conflicts } = mergePanelSets(began?.file ?? null, newest.file, file);
  const checked = checkPanelSet(set);
  const problems: Problem[] = [
    ...conflicts.map(({ path, what, theirs, mine }) => ({
      code: 'changed-meanwhile',
      path: `/${path}`,
      message: `${what} was changed by somebody else to ${theirs}; you have ${mine}.`,
    })),
    ...(checked.ok ? [] : checked.problems),
  ];
  if (problems.length > 0) {
    const [first] = savedMeanwhile(file.name, newest.version).problems;
    return { ok: false, problems: [first!, ...problems], newest: { version: newest.version, joined: set } };
  }
  const made = await importPanelSet(tx, actor, vehicleId, set);
  return { ...made, joined: set };
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
export async function learnFact(
  actor: Actor,
  vehicleId: string,
  fact: PartFact,
): Promise<{ ok: true } | { ok: false; message: string }> {
  return once(actor, { id: fact.id, kind: `fact ${vehicleId}` }, async (tx) => {
    const learned = await learnIn(tx, actor, vehicleId, fact);
    return learned.ok ? { ok: true } : learned;
  });
}

/**
 * What was learned of a part, put into every circuit of the vehicle that has it, each as a new version. Gives the new
 * versions by circuit; writes nothing when the result would not be sound, or when somebody else changed the same field
 * since the page was made.
 */
export async function learnIn(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  fact: PartFact,
): Promise<Learned> {
  const foreign = Object.keys(fact.fields).find((field) => !LEARNED.includes(field));
  if (foreign) return { ok: false, message: `“${foreign}” is not learned here; edit the circuit for it.` };
  const vehicle = await lockedVehicle(tx, actor, vehicleId);
  if (!vehicle) return { ok: false, message: NO_SUCH_VEHICLE };
  const maps = await newestCircuits(tx, [vehicleId]);
  const having = maps.filter((map) => map.file.parts.some((part) => part.id === fact.part));
  if (having.length === 0) return { ok: false, message: `No circuit here has a part ${fact.part}.` };
  const clash = having
    .flatMap((map) => map.file.parts.filter((part) => part.id === fact.part))
    .map((part) => changedMeanwhile(part, fact))
    .find((one) => one !== null);
  if (clash) return { ok: false, message: clash };
  const changed = having.map(({ id, file }) => ({
    id,
    file: renamedAfterParts(
      { ...file, parts: file.parts.map((part) => (part.id === fact.part ? withFact(part, fact) : part)) },
      namesOfParts(file),
    ),
  }));
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
): Promise<Extract<ImportResult, { ok: true }>> {
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

export { type ShopFound, type ShopSlot, type ShopVehicle, searchShop } from './slotSearch';

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
  const copy = forSister(from.panelSet.file, from.vehicle.name);
  if (to?.panelSet && JSON.stringify(to.panelSet.file) === JSON.stringify(copy)) {
    return { ok: true, version: to.panelSet.version, sentence: `${copy.name} is here already.` };
  }
  return all((tx) => importIn(tx, actor, toId, copy));
}
