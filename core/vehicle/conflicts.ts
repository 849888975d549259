/** What a change of a vehicle's record would contradict, said before it is saved. */
import type { VehicleRecord } from '../format';
import { formatNumber } from '../quantity';

/** What is known of the vehicle from elsewhere. */
export interface Known {
  /** Kilometres that jobs have read, each with its day. */
  readonly odometers: readonly { readonly km: number; readonly day: string }[];
  /** Circuits with the volts that they are drawn for. */
  readonly circuits: readonly { readonly name: string; readonly nominalVolts: number }[];
  /** Plates of other vehicles of the shop. */
  readonly plates: readonly { readonly name: string; readonly plate: string }[];
}

/** More than anybody drives in a day, kilometres. */
const KM_A_DAY = 2000;

const plain = (plate: string) => plate.toUpperCase().replace(/[^A-Z0-9]/g, '');
const km = (value: number) => `${formatNumber(value)} km`;

function daysBetween(one: string, other: string): number {
  return Math.round((Date.parse(other) - Date.parse(one)) / 86_400_000);
}

/** Each in words; none where nothing speaks against it. `today` as a day, "2026-11-29". */
export function vehicleConflicts(
  now: Pick<VehicleRecord, 'odometerKm' | 'nominalVolts' | 'plate' | 'year'>,
  known: Known,
  today: string,
): string[] {
  const said: string[] = [];
  const { odometerKm, nominalVolts, plate, year } = now;
  if (odometerKm !== null) {
    const most = known.odometers.toSorted((one, other) => other.km - one.km)[0];
    if (most && odometerKm < most.km) {
      said.push(`${km(odometerKm)} is less than the ${km(most.km)} read on ${most.day}.`);
    }
    const latest = known.odometers.toSorted((one, other) => (one.day < other.day ? 1 : -1))[0];
    const days = latest ? Math.max(1, daysBetween(latest.day, today)) : 1;
    if (latest && odometerKm - latest.km > days * KM_A_DAY) {
      said.push(
        `${km(odometerKm)} is ${km(odometerKm - latest.km)} more than was read on ${latest.day}, ${days} ${days === 1 ? 'day' : 'days'} ago.`,
      );
    }
  }
  if (nominalVolts !== null) {
    const other = known.circuits.filter((circuit) => circuit.nominalVolts !== nominalVolts);
    if (other.length > 0) {
      const names = other.slice(0, 3).map(({ name }) => name);
      said.push(
        `${nominalVolts} V: ${other.length === 1 ? 'a circuit is' : `${other.length} circuits are`} drawn for ${[...new Set(other.map((one) => one.nominalVolts))].join(' and ')} V (${names.join(', ')}${other.length > names.length ? ' …' : ''}).`,
      );
    }
  }
  const same =
    plain(plate) === '' ? undefined : known.plates.find((one) => plain(one.plate) === plain(plate));
  if (same)
    said.push(`The plate ${plate} is that of ${same.name}: one of the two may have been entered twice.`);
  if (year !== null && year > Number(today.slice(0, 4)) + 1) said.push(`The year ${year} is still to come.`);
  return said;
}

const FIELD_NAMES: Readonly<Record<keyof VehicleRecord, string>> = {
  name: 'name',
  make: 'make',
  model: 'model',
  year: 'year',
  plate: 'plate',
  nominalVolts: 'nominal volts',
  odometerKm: 'odometer',
  notes: 'notes',
  otherNames: 'other names',
};

/** Fields that both changed since the page was opened, with both values; what only one changed is no contradiction. */
export function changedMeanwhile(was: VehicleRecord, now: VehicleRecord, stored: VehicleRecord): string[] {
  return (Object.keys(FIELD_NAMES) as (keyof VehicleRecord)[]).flatMap((field) =>
    stored[field] !== was[field] && now[field] !== was[field] && now[field] !== stored[field]
      ? [
          `${FIELD_NAMES[field]}: somebody saved “${stored[field] ?? 'not known'}” meanwhile, you wrote “${now[field] ?? 'not known'}”`,
        ]
      : [],
  );
}
