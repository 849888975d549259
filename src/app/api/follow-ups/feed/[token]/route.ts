import { calendarOfFollowUps, shopOfFeed } from '@/features/jobs/server';
import { answering, refuseWith } from '@/http/answers';

/** The open follow-ups as a calendar reads them again and again; who knows the address reads them. */
export function GET(_request: Request, { params }: { params: Promise<{ token: string }> }) {
  return answering(async () => {
    const shop = await shopOfFeed((await params).token);
    if (!shop) return refuseWith(404, 'no-feed', 'This address leads to no calendar.');
    return new Response(await calendarOfFollowUps(shop), {
      headers: { 'Content-Type': 'text/calendar; charset=utf-8', 'Cache-Control': 'private, no-store' },
    });
  });
}
