import { dateWords } from '@/ui/dates';
import { PlaceLink } from '@/ui/PlaceLink';
import type { Hazard } from './hazards';

/** What stands open on vehicles, each leading to the job on which it is put right. */
export function HazardList({
  shown,
  count,
  of = 'shop',
  today,
}: {
  shown: readonly Hazard[];
  count: number;
  of?: 'shop' | 'vehicle';
  today: string;
}) {
  if (count === 0) return null;
  return (
    <section aria-labelledby="hazards" className="mt-4 border-l-4 border-bad bg-sheet px-3 py-2">
      <h2 id="hazards" className="font-bold text-bad">
        ▲ Open hazards {count}
      </h2>
      <ul data-testid="hazards">
        {shown.map((one) => (
          <li key={one.id}>
            <PlaceLink href={`/jobs/${one.jobId}`} className="block min-h-11 py-1.5 hover:bg-sunk">
              <span className="font-semibold">{one.words}</span>{' '}
              {one.due === null ? null : (
                <span className={one.due < today ? 'font-bold text-bad' : 'text-copper'}>
                  {one.due < today ? 'overdue since' : 'until'} {dateWords(one.due, 'short')}{' '}
                </span>
              )}
              <span className="text-soft">
                {[of === 'shop' ? one.vehicleName : '', `since ${dateWords(one.since, 'short')}`, one.person]
                  .filter((words) => words !== '')
                  .join(' · ')}
              </span>
            </PlaceLink>
          </li>
        ))}
      </ul>
      {count > shown.length ? (
        <PlaceLink href="/hazards" className="inline-flex min-h-11 items-center font-semibold underline">
          All {count} of them
        </PlaceLink>
      ) : null}
    </section>
  );
}
