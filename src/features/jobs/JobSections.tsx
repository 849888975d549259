'use client';

import { useDiagnosis, useJob } from '@/job/JobProvider';
import { ButtonLink, Section } from '@/ui/controls';
import { ConcludeSection } from './ConcludeSection';
import { FindSection } from './FindSection';
import { EndSection, ProveSection } from './ProveSection';
import { RepairSection } from './RepairSection';
import { UnitTables } from './UnitTables';

/** What comes after the complaint, in the order of work. */
export function JobSections() {
  const { job } = useJob();
  if (job.complaint?.work) {
    return (
      <>
        <WorkSection />
        <RepairSection />
        <EndSection />
      </>
    );
  }
  return (
    <>
      <FindSection />
      <TraceSection />
      <ConcludeSection />
      <RepairSection />
      <ProveSection />
    </>
  );
}

/** Where the work is done: the boxes and wires of the vehicle, and its maps. */
function WorkSection() {
  const { data, job } = useJob();
  const read = new Set(job.slotReadings.map(({ panel, slot }) => `${panel} ${slot}`)).size;
  return (
    <Section id="work" number={2} title="At the vehicle" done={read > 0}>
      <p>
        {read === 0 ? 'No slot read yet.' : read === 1 ? 'One slot read.' : `${read} slots read.`}{' '}
        {job.wireReadings.length > 0 ? 'Ends of wires read.' : ''}
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <ButtonLink href={`/jobs/${data.id}/boxes`}>Boxes, slot by slot</ButtonLink>
        <ButtonLink href={`/jobs/${data.id}/wires`}>Wires</ButtonLink>
        <ButtonLink href={`/vehicles/${data.vehicle.id}/panels/edit`}>Draw a box</ButtonLink>
        <ButtonLink href={`/vehicles/${data.vehicle.id}/circuits/new`}>Write a circuit</ButtonLink>
      </div>
    </Section>
  );
}

function TraceSection() {
  const { data, job } = useJob();
  const diagnosis = useDiagnosis();
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
