import { StageMark } from '@/job/StageMark';
import { dateWords } from '@/ui/dates';
import { PlaceLink } from '@/ui/PlaceLink';
import type { JobRow } from './listJobs';

/** Jobs as lists show them, each leading to itself. */
export function JobLines({ jobs, of = 'shop' }: { jobs: readonly JobRow[]; of?: 'shop' | 'vehicle' }) {
  return (
    <ul>
      {jobs.map((job) => (
        <li key={job.id} className="border-b border-line">
          <PlaceLink href={`/jobs/${job.id}`} className="block py-3 hover:bg-sunk">
            <span className="flex flex-wrap items-center justify-between gap-2">
              <span className="text-lg font-bold">{job.title}</span>
              <StageMark stage={job.stage} />
            </span>
            <span className="block text-soft">
              {[
                of === 'shop' ? job.vehicleName : '',
                `opened ${dateWords(job.openedAt, 'short')}`,
                job.readings > 0 ? `${job.readings} readings` : '',
                job.found ?? '',
              ]
                .filter((one) => one !== '')
                .join(' · ')}
            </span>
          </PlaceLink>
        </li>
      ))}
    </ul>
  );
}
