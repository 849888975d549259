import { WATCH_SORT_WORDS } from '#core/log';
import { dateWords } from '@/ui/dates';
import { PlaceLink } from '@/ui/PlaceLink';
import type { FollowUp } from './followUp';

const sortWords = (sort: FollowUp['sort']) =>
  sort === 'temporary' ? 'Temporary part' : sort === 'watch' ? '' : WATCH_SORT_WORDS[sort];

/** What somebody has to come back to, each leading to where it is dealt with; overdue is what was due before today. */
export function FollowUpList({
  items,
  today,
  of = 'shop',
}: {
  items: readonly FollowUp[];
  today: string;
  of?: 'shop' | 'vehicle';
}) {
  return (
    <ul>
      {items.map((one) => {
        const overdue = one.due !== null && one.due < today;
        const where = one.sort === 'temporary' ? 'repair' : 'prove';
        const beneath = [sortWords(one.sort), of === 'shop' ? one.vehicleName : ''].filter(Boolean);
        return (
          <li key={one.id} className="border-b border-line" data-testid="follow-up">
            <PlaceLink href={`/jobs/${one.jobId}#${where}`} className="block py-3 hover:bg-sunk">
              {one.due === null ? null : (
                <span className={`reading font-bold ${overdue ? 'text-bad' : 'text-copper'}`}>
                  {dateWords(one.due, 'short')}
                  {overdue ? ' — overdue' : ''}
                </span>
              )}
              <span className="block break-words">{one.words}</span>
              {beneath.length > 0 ? (
                <span className="block text-sm text-soft">{beneath.join(' · ')}</span>
              ) : null}
            </PlaceLink>
          </li>
        );
      })}
    </ul>
  );
}
