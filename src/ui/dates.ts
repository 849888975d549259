/**
 * Days and times as they are shown: always in the zone of the workshop, which is that of the machine the program runs
 * on, whoever looks and from where. Entries carry moments (UTC); a due day is a day of the calendar and has no zone.
 */

import { TZDate } from '@date-fns/tz';
import { format, parseISO } from 'date-fns';

/** The workshop's zone: told to the browser by the page (`data-zone`), so that server and page print the same. */
export function workshopZone(): string {
  const told = typeof document === 'undefined' ? undefined : document.documentElement.dataset.zone;
  return told ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
}

const FORMS = {
  /** 3 Mar */
  short: 'd MMM',
  /** 3 Mar 2026 */
  year: 'd MMM yyyy',
  /** 3 March 2026 */
  long: 'd MMMM yyyy',
  /** 14:05 */
  time: 'HH:mm',
} as const;

const DAY = /^\d{4}-\d{2}-\d{2}$/;

/**
 * A moment, or a day of the calendar, in words.
 *
 * @example dateWords('2026-03-03T23:30:00Z', 'short') // "4 Mar" in a workshop east of Greenwich
 * @example dateWords('2026-03-03', 'short') // "3 Mar" everywhere
 */
export function dateWords(when: string, form: keyof typeof FORMS, zone = workshopZone()): string {
  const moment = DAY.test(when) ? parseISO(when) : new TZDate(when, zone);
  return format(moment, FORMS[form]);
}

/** The workshop's day at a moment, as a due day is written. */
export function dayOf(moment: Date, zone = workshopZone()): string {
  return format(new TZDate(moment, zone), 'yyyy-MM-dd');
}
