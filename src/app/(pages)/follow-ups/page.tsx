import { isUuid } from '#core/format';
import { now } from '@/clock/now';
import { FeedAddress, FollowUpList } from '@/features/jobs';
import { allFollowUps, FOLLOW_UP_PAGE, feedAddress } from '@/features/jobs/server';
import { pageActor } from '@/http/pageActor';
import { ButtonLink } from '@/ui/controls';
import { dayOf } from '@/ui/dates';
import { Fold } from '@/ui/Fold';

export const metadata = { title: 'Follow-ups' };

/** Every watch item that stands open, of open and of closed jobs. */
export default async function FollowUpsPage({
  searchParams,
}: {
  searchParams: Promise<{ after?: string | string[] }>;
}) {
  const { after } = await searchParams;
  const actor = await pageActor();
  const [items, feed] = await Promise.all([
    allFollowUps(actor, isUuid(after) ? after : null),
    feedAddress(actor),
  ]);
  const today = dayOf(now());
  const last = items.at(-1);
  return (
    <div className="mx-auto max-w-3xl px-4 py-6 lg:px-6">
      <h1 className="text-3xl">Follow-ups</h1>
      <p className="mt-2 max-w-prose text-soft">
        They outlive their jobs. Open one and say what was found; it goes from this list then.
      </p>
      {items.length === 0 ? (
        <p className="mt-4">Nothing is open.</p>
      ) : (
        <p className="mt-2">
          <a
            href="/api/follow-ups"
            download
            className="inline-flex min-h-11 items-center underline underline-offset-4"
          >
            Those with a day, for a calendar (.ics)
          </a>
        </p>
      )}
      <FollowUpList items={items} today={today} />
      {items.length === FOLLOW_UP_PAGE && last ? (
        <ButtonLink href={`/follow-ups?after=${last.id}`} className="mt-4">
          The next {FOLLOW_UP_PAGE}
        </ButtonLink>
      ) : null}
      <Fold title="In a calendar" className="mt-6">
        <FeedAddress first={feed} />
      </Fold>
    </div>
  );
}
