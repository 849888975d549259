/** Follow-ups as a calendar file (iCalendar, RFC 5545): a whole day each, without a time. */
import ical, { ICalCalendarMethod } from 'ical-generator';
import type { FollowUp } from './followUp';

const PRODUCT = { company: 'Every Trace', product: 'follow-ups', language: 'EN' } as const;

/** Those with a day, each as one event that keeps its id, so that a calendar that takes it again has it once. */
export function followUpCalendar(items: readonly FollowUp[], made: Date): string {
  const calendar = ical({
    name: 'Every Trace: follow-ups',
    prodId: PRODUCT,
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const { id, due, words, vehicleName, title } of items) {
    if (due === null) continue;
    calendar.createEvent({
      id: `${id}@every-trace`,
      // The package writes days by Greenwich: given so, a day stands as it is, whatever zone the machine is in.
      start: new Date(`${due}T00:00:00Z`),
      end: new Date(`${nextDay(due)}T00:00:00Z`),
      allDay: true,
      stamp: made,
      summary: `${vehicleName}: ${words}`,
      description: `Job: ${title}`,
    });
  }
  return calendar.toString();
}

function nextDay(day: string): string {
  const next = new Date(`${day}T00:00:00Z`);
  next.setUTCDate(next.getUTCDate() + 1);
  return next.toISOString().slice(0, 10);
}
