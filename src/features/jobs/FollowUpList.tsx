import { dateWords } from '@/ui/dates';
import { PlaceLink } from '@/ui/PlaceLink';
import type { FollowUp } from './followUps';

/** Watch items as lists show them, each leading to where it is dealt with. */
export function FollowUpList({ items, overdue = false }: { items: readonly FollowUp[]; overdue?: boolean }) {
  return (
    <ul>
      {items.map((one) => (
        <li key={one.id} className="border-b border-line" data-testid="follow-up">
          <PlaceLink href={`/jobs/${one.jobId}#prove`} className="block py-3 hover:bg-sunk">
            {one.due === null ? null : (
              <span className={`reading font-bold ${overdue ? 'text-bad' : 'text-copper'}`}>
                {dateWords(one.due, 'short')}
                {overdue ? ' — overdue' : ''}
              </span>
            )}
            <span className="block break-words">{one.words}</span>
            <span className="block text-sm text-soft">{one.vehicleName}</span>
          </PlaceLink>
        </li>
      ))}
    </ul>
  );
}
