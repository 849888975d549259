'use client';

import { ButtonLink, Section } from '@/ui/controls';
import { ComplaintSection } from './ComplaintSection';
import { ConcludeSection } from './ConcludeSection';
import { FindSection } from './FindSection';
import { useJob } from './JobProvider';
import { ProveSection } from './ProveSection';
import { RepairSection } from './RepairSection';
import { UnitTables } from './UnitTables';

/** The job on one page that grows with the order of work. */
export function JobPage() {
  return (
    <div className="mx-auto max-w-6xl px-3 pb-16 lg:px-5 [&>section:first-child]:border-t-0">
      <ComplaintSection />
      <FindSection />
      <TraceSection />
      <ConcludeSection />
      <RepairSection />
      <ProveSection />
    </div>
  );
}

function TraceSection() {
  const { data, job, diagnosis } = useJob();
  const standing = job.readings.filter((entry) => !entry.struck).length;
  const lead = diagnosis.assessment?.suspects[0];
  return (
    <Section id="trace" number={3} title="Trace" done={job.found !== null}>
      <p>
        {standing === 0 ? 'No reading yet.' : standing === 1 ? 'One reading.' : `${standing} readings.`}{' '}
        {lead ? (
          <>
            First suspect: <strong>{lead.title}</strong>, {Math.round(lead.chance * 100)} %.{' '}
          </>
        ) : null}
        {diagnosis.assessment?.verdict.sentence}
      </p>
      <ButtonLink href={`/jobs/${data.id}/trace`} className="mt-3">
        Open the trace
      </ButtonLink>
      <UnitTables />
    </Section>
  );
}
