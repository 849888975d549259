/** Days and moments as files and entries write them (ISO 8601), by the Gregorian calendar, of the years 1900 to 2199. */

/** Months of 31, of 30 and of 28 days; 29 February in the years that have it (1900 and 2100 do not). */
const DAY =
  '(?:(?:19|20|21)\\d{2}-(?:(?:0[13578]|1[02])-(?:0[1-9]|[12]\\d|3[01])|(?:0[469]|11)-(?:0[1-9]|[12]\\d|30)|02-(?:0[1-9]|1\\d|2[0-8]))|(?:(?:19|20|21)(?:0[48]|[2468][048]|[13579][26])|2000)-02-29)';

/** A day: `2026-03-31`. */
export const DAY_PATTERN = `^${DAY}$`;
/** A moment with its zone, to the microsecond at most: `2026-03-31T14:05:00.250Z`. */
export const INSTANT_PATTERN = `^${DAY}T(?:[01]\\d|2[0-3]):[0-5]\\d:[0-5]\\d(?:\\.\\d{1,6})?(?:Z|[+-](?:0\\d|1[0-4]):[0-5]\\d)$`;

/** Why a day can be no day on which somebody comes back; null where it can. `today` as a day. */
export function dueProblem(day: string, today: string): string | null {
  const years = Number(day.slice(0, 4)) - Number(today.slice(0, 4));
  if (years < -1) return `${day} is long past: write the day to come.`;
  return years > 20 ? `${day} is more than twenty years ahead.` : null;
}

/** Why something cannot be put off to a day; null where it can. `today` as a day. */
export function putOffProblem(day: string, today: string): string | null {
  if (day <= today) return `${dayWords(day)} is not ahead.`;
  return dueProblem(day, today);
}

const MONTHS = 'JanFebMarAprMayJunJulAugSepOctNovDec';

/**
 * A day in words, as all dates on sheets are written.
 *
 * @example dayWords('2026-03-03') // "3 Mar 2026"
 */
export function dayWords(day: string): string {
  const [year = '', month = '', date = ''] = day.split('-');
  return `${Number(date)} ${MONTHS.slice(3 * Number(month) - 3, 3 * Number(month))} ${year}`;
}
