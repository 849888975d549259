import { currentActor } from '@/access';
import { calendarOfFollowUps } from '@/features/jobs/server';
import { answering } from '@/http/answers';

/** Every open follow-up with a day, as a calendar file. */
export function GET() {
  return answering(
    async () =>
      new Response(await calendarOfFollowUps(await currentActor()), {
        headers: {
          'Content-Type': 'text/calendar; charset=utf-8',
          'Content-Disposition': 'attachment; filename="follow-ups.ics"',
        },
      }),
  );
}
