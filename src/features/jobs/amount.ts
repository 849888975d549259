import { formatNumber, type NumberRange, parseReading } from '#core/quantity';

/** A current or a voltage as an instrument shows it, milli and comma included, within what an entry takes. */
export function readAmount(
  typed: string,
  unit: 'A' | 'V',
  { least = 0, most }: NumberRange,
): { readonly ok: true; readonly value: number } | { readonly ok: false; readonly message: string } {
  const read = parseReading(typed, unit);
  if (!read.ok) return { ok: false, message: read.message };
  if (read.unit !== unit || !('value' in read)) return { ok: false, message: `It is read in ${unit}.` };
  if (read.value < least || read.value > most)
    return { ok: false, message: `Write ${formatNumber(least)} to ${formatNumber(most)} ${unit}.` };
  return { ok: true, value: read.value };
}
