/** A vehicle that is new, and what a first job puts on it: its voltage, the circuit of a pattern. */
import { and, eq, isNull } from 'drizzle-orm';
import { checkCircuit, fitCircuit } from '#core/circuit';
import type { CircuitFile, NewVehicle } from '#core/format';
import {
  circuitOfPattern,
  type Interlock,
  type LoadWord,
  type Pattern,
  type ReturnPath,
  usualReturn,
} from '#core/notation';
import type { Actor } from '@/access';
import type { Transaction } from '@/db/client';
import { once } from '@/db/once';
import { keepVehicle } from '@/db/projections/searchRows';
import { vehicles } from '@/db/schema';
import { importIn } from './importMap';
import { lockedVehicle, NO_SUCH_VEHICLE } from './lockedVehicle';
import { newestCircuits } from './readVehicles';

/** A vehicle that nobody has recorded yet: a name is enough, the rest can come later. */
export async function addVehicle(
  tx: Transaction,
  actor: Actor,
  input: {
    readonly id: string;
    readonly name: string;
    readonly plate: string;
    /** Null where nobody knows it yet. */
    readonly nominalVolts: number | null;
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
    .returning();
  const [made] = rows;
  if (made) {
    await keepVehicle(tx, made);
    return { ok: true };
  }
  const [same] = await tx
    .select({ id: vehicles.id })
    .from(vehicles)
    .where(and(eq(vehicles.id, input.id), eq(vehicles.shopId, actor.shopId)));
  // The vehicle of an earlier try is there already.
  return same
    ? { ok: true }
    : { ok: false, message: `A vehicle with the plate ${plate} is recorded already.` };
}

/** The same for itself, before any job. */
export function addVehicleAlone(actor: Actor, input: NewVehicle): Promise<{ ok: boolean; message?: string }> {
  const { vehicleId, name, plate = '', nominalVolts = null } = input;
  return once(actor, { id: input.id, kind: 'new-vehicle' }, (tx) =>
    addVehicle(tx, actor, { id: vehicleId, name, plate, nominalVolts }),
  );
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
    readonly interlocks?: readonly Interlock[];
    readonly returns?: ReturnPath | undefined;
    readonly unbidden?: boolean;
  },
): Promise<
  | {
      ok: true;
      fileId: string;
      circuit: CircuitFile;
      /** Ids of its parts by those of the pattern: beside other circuits they get ones of their own. */
      partIds: ReadonlyMap<string, string>;
      function: string;
      condition: string;
    }
  | { ok: false; message: string }
> {
  const vehicle = await lockedVehicle(tx, actor, vehicleId);
  if (!vehicle) return { ok: false, message: NO_SUCH_VEHICLE };
  const { nominalVolts } = vehicle;
  if (nominalVolts === null) {
    return { ok: false, message: 'Say the nominal voltage first: no verdict is given without it.' };
  }
  const { returns, ...named } = input;
  const made = circuitOfPattern(pattern, {
    ...named,
    nominalVolts,
    returns:
      returns ?? usualReturn(`${vehicle.name} ${vehicle.make ?? ''} ${vehicle.model ?? ''}`, nominalVolts),
  });
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
    circuit,
    partIds: new Map(made.circuit.parts.map(({ id }, index) => [id, circuit.parts[index]!.id])),
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
