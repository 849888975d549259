import { calendarOfFollowUps } from '@/features/jobs/server';
import { door } from '@/http/door';

/** Every open follow-up with a day, as a calendar file. */
export const GET = door(
  'see',
  async ({ actor }) =>
    new Response(await calendarOfFollowUps(actor), {
      headers: {
        'Content-Type': 'text/calendar; charset=utf-8',
        'Content-Disposition': 'attachment; filename="follow-ups.ics"',
      },
    }),
);
