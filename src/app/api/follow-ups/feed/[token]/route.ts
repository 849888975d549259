import { calendarOfFollowUps, shopOfFeed } from '@/features/jobs/server';
import { refuseWith } from '@/http/answers';
import { open } from '@/http/door';

/** The open follow-ups as a calendar reads them again and again. */
export const GET = open<{ token: string }>(
  'Calendars cannot sign in: the address holds a secret of its own, and a new one ends it.',
  async ({ params }) => {
    const shop = await shopOfFeed(params.token);
    if (!shop) return refuseWith(404, 'no-feed', 'This address leads to no calendar.');
    return new Response(await calendarOfFollowUps(shop), {
      headers: { 'Content-Type': 'text/calendar; charset=utf-8', 'Cache-Control': 'private, no-store' },
    });
  },
);
