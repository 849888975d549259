/** What was learned of a part of a vehicle, put into its circuits. */
import { checkCircuit, namesOfParts, renamedAfterParts } from '#core/circuit';
import type { PartFact } from '#core/format';
import type { Actor } from '@/access';
import type { Transaction } from '@/db/client';
import { once } from '@/db/once';
import { changedMeanwhile, withFact } from './fact';
import { importCircuit } from './importMap';
import { lockedVehicle, NO_SUCH_VEHICLE } from './lockedVehicle';
import { newestCircuits } from './readVehicles';

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
  'safetyCritical',
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
    versions.set(id, (await importCircuit(tx, actor, vehicle, file)).versionId);
  }
  return { ok: true, versions };
}
