/** What is typed for a new job, as the server takes it, or what of it is missing. */
import type { NewJob, Work } from '#core/format';
import { type Interlock, type LoadWord, PATTERNS, type ReturnPath } from '#core/notation';
import type { KnownVehicle } from '@/features/vehicles/server';
import type { Tried } from '@/sync/requestFor';
import { textOf } from '@/sync/useKeptForm';

export const HOW = [
  ['dead', 'Dead'],
  ['weak', 'Weak'],
  ['comes-and-goes', 'Comes and goes'],
  ['on-when-off', 'On when it should be off'],
] as const;

export interface NewJobWords {
  /** What the job is: a fault, or work. */
  purpose: 'fault' | Work;
  vehicleId: string;
  /** One that was found by name, beside those that come first. */
  found: KnownVehicle | null;
  vehicleName: string;
  plate: string;
  title: string;
  /** A function of the vehicle that was tapped. */
  function: string | null;
  pluggedIn: 'nothing' | 'something' | null;
  pluggedWords: string;
  changed: boolean;
  changedWords: string;
  sketch: boolean;
  load: string;
  pattern: string | null;
  kind: LoadWord | null;
  interlocks: readonly Interlock[];
  /** How the current comes back; null as it usually does on such a vehicle. */
  returns: ReturnPath | null;
  volts: number | null;
  how: (typeof HOW)[number][0];
  /** The same for every try of the same job, also after a reload: a request whose answer was lost opens nothing twice. */
  ids: { vehicle: string; tried: Tried | null };
}

/** What is asked besides the words, of a vehicle or of one that is not here yet. */
export function wanted(
  { sketch, purpose = 'fault' }: Pick<NewJobWords, 'sketch' | 'purpose'>,
  vehicle: KnownVehicle | undefined,
) {
  const unmapped = !vehicle || vehicle.circuits === 0;
  return {
    unmapped,
    wantsPattern: purpose === 'fault' && (unmapped || sketch),
    wantsVolts: vehicle ? vehicle.nominalVolts === null : true,
  };
}

export function asksInterlocks(pattern: string | null): boolean {
  return PATTERNS.some((one) => one.id === pattern && one.asksInterlocks);
}

/** The job as the server takes it, or what is missing. */
export function jobAsked(
  values: NewJobWords,
  vehicle: KnownVehicle | undefined,
): { ok: true; job: Omit<NewJob, 'id'> } | { ok: false; message: string; field?: string } {
  const { pattern, kind, interlocks = [], volts, how, purpose = 'fault' } = values;
  const fault = purpose === 'fault';
  const { wantsPattern, wantsVolts } = wanted(values, vehicle);
  const title = textOf(values.title);
  if (title === '') {
    const message = fault ? 'Say in a few words what fails.' : 'Say in a few words what is to be done.';
    return { ok: false, message, field: 'title' };
  }
  const vehicleName = textOf(values.vehicleName);
  if (!vehicle && vehicleName === '') {
    return { ok: false, message: 'Give the vehicle a name, “white tipper” will do.', field: 'vehicleName' };
  }
  const patterned = wantsPattern && pattern !== null;
  if ((patterned || (!vehicle && fault)) && wantsVolts && volts === null) {
    return { ok: false, message: 'Which nominal voltage? One tap: no verdict is given without it.' };
  }
  const load = textOf(values.load);
  const something = fault && values.pluggedIn === 'something';
  const job = {
    title,
    ...(fault ? {} : { work: purpose }),
    ...(fault && !patterned && vehicle && values.function ? { function: values.function, state: how } : {}),
    ...(fault && values.pluggedIn === 'nothing' ? { nothingPluggedIn: true } : {}),
    ...(something ? { pluggedIn: textOf(values.pluggedWords) || 'something, not said what' } : {}),
    ...(fault && values.changed
      ? { changedBefore: textOf(values.changedWords) || 'something, not said what' }
      : {}),
    vehicleId: vehicle?.id ?? values.ids.vehicle,
    ...(vehicle ? {} : { vehicleName, plate: textOf(values.plate) }),
    ...(wantsVolts && volts !== null ? { nominalVolts: volts } : {}),
    ...(patterned
      ? {
          pattern,
          kind: kind ?? 'module',
          state: how,
          ...(load === '' ? {} : { load }),
          ...(asksInterlocks(pattern) && interlocks.length > 0 ? { interlocks } : {}),
          ...(values.returns ? { returns: values.returns } : {}),
        }
      : {}),
  };
  return { ok: true, job: job as Omit<NewJob, 'id'> };
}
