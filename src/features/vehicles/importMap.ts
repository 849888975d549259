/** Circuits and boxes brought in as new versions, joined with what others saved meanwhile. */
import { randomUUID } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import { mergeCircuits } from '#core/circuit';
import {
  type CircuitFile,
  checkPanelSet,
  type ImportRequest,
  type PanelSetFile,
  type Problem,
} from '#core/format';
import { forSister, mergePanelSets } from '#core/panel';
import type { Actor } from '@/access';
import type { Transaction } from '@/db/client';
import { all, once } from '@/db/once';
import { keepCircuit, keepSlots } from '@/db/projections/searchRows';
import { circuits, circuitVersions, panelSets, panelSetVersions, vehicles } from '@/db/schema';
import { readMap } from '@/workers/mapReader';
import { lockedVehicle, NO_SUCH_VEHICLE } from './lockedVehicle';
import { loadVehicle, newestCircuits, newestPanelSet, type Vehicle } from './readVehicles';

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
  if ('panels' in file) return importBoxes(tx, actor, vehicle, file, base);
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
  return importCircuit(tx, actor, vehicle, file);
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
  vehicle: Vehicle,
  file: PanelSetFile,
  base: number | null,
): Promise<ImportResult> {
  const newest = await newestPanelSet(tx, vehicle.id);
  if (base === null || base === (newest?.version ?? 0) || !newest) {
    return importPanelSet(tx, actor, vehicle, file);
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
  const made = await importPanelSet(tx, actor, vehicle, set);
  return { ...made, joined: set };
}

/** A circuit that was checked as a new version; under the lock of its vehicle. */
export async function importCircuit(
  tx: Transaction,
  actor: Actor,
  vehicle: Vehicle,
  file: CircuitFile,
): Promise<Extract<ImportResult, { ok: true }> & { readonly versionId: string }> {
  const { shopId } = actor;
  const now = { name: file.name, parts: file.parts.length };
  const [circuit] = await tx
    .insert(circuits)
    .values({ id: randomUUID(), shopId, vehicleId: vehicle.id, fileId: file.id, version: 1, ...now })
    .onConflictDoUpdate({
      target: [circuits.vehicleId, circuits.fileId],
      set: { ...now, version: sql`${circuits.version} + 1` },
    })
    .returning();
  const { id: circuitId, version } = circuit!;
  const versionId = randomUUID();
  await tx
    .insert(circuitVersions)
    .values({ id: versionId, shopId, circuitId, version, file, madeBy: actor.personId });
  await keepCircuit(tx, vehicle, circuit!);
  return {
    ok: true,
    versionId,
    version,
    sentence: `${file.name} is in as version ${version}: ${now.parts} parts.`,
  };
}

async function importPanelSet(
  tx: Transaction,
  actor: Actor,
  vehicle: Vehicle,
  file: PanelSetFile,
): Promise<Extract<ImportResult, { ok: true }>> {
  const { shopId } = actor;
  const slots = file.panels.reduce((sum, panel) => sum + panel.slots.length, 0);
  const now = { name: file.name, fileId: file.id, panels: file.panels.length, slots };
  const [set] = await tx
    .insert(panelSets)
    .values({ id: randomUUID(), shopId, vehicleId: vehicle.id, version: 1, ...now })
    .onConflictDoUpdate({
      target: panelSets.vehicleId,
      set: { ...now, version: sql`${panelSets.version} + 1` },
    })
    .returning();
  const { id: panelSetId, version } = set!;
  await tx
    .insert(panelSetVersions)
    .values({ id: randomUUID(), shopId, panelSetId, version, file, madeBy: actor.personId });
  await keepSlots(tx, vehicle, file);
  return {
    ok: true,
    version,
    sentence: `${file.name} is in as version ${version}: ${now.panels} boxes, ${slots} slots.`,
  };
}

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
