/** What stands at the head of a sheet, on the page and on paper. */
import type { EntryTime, Sheet } from '#core/log';
import { dateWords } from '../ui/dates';

export function vehicleWords({
  name,
  make,
  model,
  year,
  plate,
}: {
  readonly name: string;
  readonly make: string;
  readonly model: string;
  readonly year: number | null;
  readonly plate: string;
}): string {
  return [name, `${make} ${model} ${year ?? ''}`.trim(), plate].filter((one) => one !== '').join(' · ');
}

function momentWords(at: string, zone?: string): string {
  return `${dateWords(at, 'year', zone)} ${dateWords(at, 'time', zone)}`;
}

/** When an entry was made; beside a time that its device cannot have meant, when the server had it. */
export function entryTimeWords({ at, arrived }: EntryTime, zone?: string): string {
  if (arrived === undefined) return momentWords(at, zone);
  return `${momentWords(arrived, zone)}; its device said ${momentWords(at, zone)}`;
}

/** When the job was opened and its entries were made, and where. */
export function headLines(
  job: { readonly id: string; readonly openedAt: string },
  { from, until, place }: Pick<Sheet, 'from' | 'until' | 'place'>,
  zone?: string,
): readonly [opened: string, entries: string] {
  const entries =
    from && until ? `Entries from ${momentWords(from, zone)} to ${momentWords(until, zone)}` : 'No entry yet';
  return [
    `Opened ${momentWords(job.openedAt, zone)} · reference ${job.id.slice(0, 8)}`,
    `${entries} · ${place ? `done at ${place}` : 'place of the work not confirmed'}`,
  ];
}

export function sheetKind(reader: 'technician' | 'customer' | 'work'): string {
  if (reader === 'work') return 'Work order';
  return reader === 'customer' ? 'For the customer' : 'Hand-over sheet';
}

/** What every sheet closes with. */
export const SHEET_CLOSE = 'The maker’s service information and local rules take precedence over this sheet.';
