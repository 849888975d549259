/** Opening a job: the job alone, or with all that a new one needs, in one transaction. */
import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { conditionComplained } from '#core/diagnosis';
import type { EventBody, NewJob } from '#core/format';
import { CircuitModel } from '#core/network';
import { INTERLOCKS, LOAD_WORDS, PATTERNS } from '#core/notation';
import type { Actor } from '@/access';
import { now } from '@/clock/now';
import type { Transaction } from '@/db/client';
import { all, once } from '@/db/once';
import { makeAnew } from '@/db/projections/jobRows';
import { keepJob } from '@/db/projections/searchRows';
import {
  circuits,
  circuitVersions,
  jobCircuits,
  jobs,
  panelSets,
  panelSetVersions,
  vehicles,
} from '@/db/schema';
import { addPattern, addVehicle, newestCircuits, setNominalVolts } from '@/features/vehicles/server';
import { appendIn } from './appendEvents';

export interface JobInput {
  readonly id: string;
  readonly vehicleId: string;
  readonly title: string;
  readonly openedAt?: string;
  readonly circuitFileIds?: readonly string[];
}

type Opened = { readonly ok: true } | { readonly ok: false; readonly message: string };

/** Opens a job on the newest versions of a vehicle's circuits and panel set. */
export function openJob(actor: Actor, input: JobInput): Promise<Opened> {
  return all((tx) => openJobIn(tx, actor, input));
}

export async function openJobIn(tx: Transaction, actor: Actor, input: JobInput): Promise<Opened> {
  const openedAt = input.openedAt ?? now().toISOString();
  const [vehicle] = await tx
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.id, input.vehicleId), eq(vehicles.shopId, actor.shopId)));
  if (!vehicle) return { ok: false, message: 'There is no such vehicle in this shop.' };
  const maps = await tx
    .select({ versionId: circuitVersions.id, fileId: circuits.fileId, name: circuits.name })
    .from(circuits)
    .innerJoin(
      circuitVersions,
      and(eq(circuitVersions.circuitId, circuits.id), eq(circuitVersions.version, circuits.version)),
    )
    .where(eq(circuits.vehicleId, input.vehicleId));
  const wanted = input.circuitFileIds;
  const chosen = wanted
    ? wanted.flatMap((fileId) => maps.filter((map) => map.fileId === fileId))
    : maps.sort((one, other) => (one.name < other.name ? -1 : 1));
  const [panelSet] = await tx
    .select({ id: panelSetVersions.id })
    .from(panelSets)
    .innerJoin(
      panelSetVersions,
      and(eq(panelSetVersions.panelSetId, panelSets.id), eq(panelSetVersions.version, panelSets.version)),
    )
    .where(eq(panelSets.vehicleId, input.vehicleId));
  await tx.insert(jobs).values({
    id: input.id,
    shopId: actor.shopId,
    vehicleId: input.vehicleId,
    title: input.title,
    openedBy: actor.personId,
    openedAt,
    panelSetVersionId: panelSet?.id ?? null,
  });
  if (chosen.length > 0) {
    await tx.insert(jobCircuits).values(
      chosen.map((map, position) => ({
        jobId: input.id,
        circuitVersionId: map.versionId,
        shopId: actor.shopId,
        position,
      })),
    );
  }
  await makeAnew(tx, { id: input.id, shopId: actor.shopId, vehicleId: input.vehicleId, openedAt });
  await keepJob(tx, vehicle, input);
  return { ok: true };
}

export type BegunJob =
  | { readonly ok: true; readonly id: string; readonly traced: boolean }
  | { readonly ok: false; readonly message: string };

/**
 * A job with its complaint; with a pattern its circuit is made first, on a vehicle that may be new itself. All of it is
 * there, or nothing; asked again with the same id it answers what the first made.
 */
export function beginJob(actor: Actor, input: NewJob): Promise<BegunJob> {
  return once<BegunJob>(actor, { id: input.id, kind: 'new-job' }, (tx) => begin(tx, actor, input));
}

async function begin(tx: Transaction, actor: Actor, input: NewJob): Promise<BegunJob> {
  const { id, vehicleId, title, nominalVolts } = input;
  if (input.vehicleName !== undefined) {
    if (nominalVolts === undefined && input.work === undefined) {
      return { ok: false, message: 'Say the nominal voltage: no verdict is given without it.' };
    }
    const { vehicleName: name, plate = '' } = input;
    const added = await addVehicle(tx, actor, {
      id: vehicleId,
      name,
      plate,
      nominalVolts: nominalVolts ?? null,
    });
    if (!added.ok) return added;
  } else if (nominalVolts !== undefined) await setNominalVolts(tx, actor, vehicleId, nominalVolts);
  const pattern = PATTERNS.find((one) => one.id === input.pattern);
  const made = pattern
    ? await addPattern(tx, actor, vehicleId, pattern, {
        load: input.load?.trim() || loadOf(title),
        kind: LOAD_WORDS.find(([one]) => one === input.kind)?.[0] ?? 'module',
        interlocks: INTERLOCKS.map(([one]) => one).filter((one) => input.interlocks?.includes(one)),
        returns: input.returns,
        unbidden: input.state === 'on-when-off',
      })
    : null;
  if (made && !made.ok) return made;
  const named = made ?? (await namedFunction(tx, vehicleId, input));
  const files = made ? { circuitFileIds: [made.fileId] } : {};
  const opened = await openJobIn(tx, actor, { id, vehicleId, title, ...files });
  if (!opened.ok) return opened;
  const madeAt = now().toISOString();
  const entry = (clientOrder: number, body: EventBody) => ({
    id: randomUUID(),
    jobId: id,
    madeAt,
    clientOrder,
    body,
  });
  const stored = await appendIn(tx, actor, [
    entry(0, {
      kind: 'complaint',
      words: title,
      ...(named
        ? { function: named.function, condition: named.condition, state: input.state ?? 'dead' }
        : {}),
      ...(input.work ? { work: input.work } : {}),
      ...said('pluggedIn', input.pluggedIn),
      ...(input.pluggedIn === undefined ? {} : { appliance: { fusesTaken: 0 } }),
      ...said('changedBefore', input.changedBefore),
    }),
    ...(input.nothingPluggedIn ? [entry(1, { kind: 'plugged-in', appliance: false })] : []),
  ]);
  return stored.ok ? { ok: true, id, traced: named !== null } : stored;
}

function said<Field extends string>(field: Field, words: string | undefined): { [field in Field]?: string } {
  const text = words?.trim() ?? '';
  return (text === '' ? {} : { [field]: text }) as { [field in Field]?: string };
}

/** A function of the vehicle's circuits that was tapped, in the setting that such a complaint is likeliest of. */
async function namedFunction(
  tx: Transaction,
  vehicleId: string,
  input: NewJob,
): Promise<{ function: string; condition: string } | null> {
  if (input.function === undefined) return null;
  for (const { file } of await newestCircuits(tx, [vehicleId])) {
    if (!file.functions.some(({ id }) => id === input.function)) continue;
    const unbidden = input.state === 'on-when-off';
    const condition = conditionComplained(new CircuitModel(file), input.function, unbidden);
    if (condition !== null) return { function: input.function, condition };
  }
  return null;
}

/** What fails, without how: "Warming jacket dead" is about the warming jacket. */
function loadOf(title: string): string {
  const [first = title] = title.split(/[,;:]/);
  const name = first.replace(
    /\s+(is |are |was |were |stays |remains )?(dead|weak|dim|off|out|on|not working|works? not|fails?|flickers?|comes and goes)$/i,
    '',
  );
  return (name.trim() || title).slice(0, 60);
}
