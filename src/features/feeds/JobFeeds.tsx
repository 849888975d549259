'use client';

import { useMemo, useState } from 'react';
import { withStates } from '#core/panel';
import { useJob } from '@/job/JobProvider';
import { noteOf } from '@/job/noteOf';
import { useSearch } from '@/ui/address';
import { Button, ButtonLink } from '@/ui/controls';
import { FindFeed } from './FindFeed';
import { planHref } from './planHref';
import { readHref, readWords } from './readLink';
import { tapsOf } from './tapsOf';

const NO_PANELS = [] as const;

/** Find a feed from a job: from what this browser holds, with the readings of this job and of earlier ones. */
export function JobFeeds() {
  const { data, job, nominalVolts } = useJob();
  const search = useSearch();
  const mapped = data.panelSet?.panels ?? NO_PANELS;
  const panels = useMemo(
    () => mapped.map((panel) => withStates(panel, job.slotStates)),
    [mapped, job.slotStates],
  );
  const readings = useMemo(
    () => [...(data.surveyed ?? []), ...job.slotReadings],
    [data.surveyed, job.slotReadings],
  );
  const taps = useMemo(() => tapsOf(data.stock), [data.stock]);
  if (nominalVolts === null || panels.length === 0) {
    return (
      <div className="mx-auto max-w-xl px-4 py-12">
        <h2 className="text-2xl">
          {nominalVolts === null ? 'Which nominal voltage?' : 'No box of this vehicle is mapped yet'}
        </h2>
        <p className="mt-2 text-lg">
          {nominalVolts === null
            ? 'Limits for live and dead follow it. Choose it in the complaint.'
            : 'A feed is looked for slot by slot. Draw the box by thumb first, then survey it.'}
        </p>
        <ButtonLink
          look="primary"
          className="mt-4"
          href={
            nominalVolts === null ? `/jobs/${data.id}#complaint` : `/vehicles/${data.vehicle.id}/panels/edit`
          }
        >
          {nominalVolts === null ? 'To the complaint' : 'Draw the box'}
        </ButtonLink>
      </div>
    );
  }
  return (
    <div className="px-3 py-4 lg:px-5">
      <FindFeed
        vehicleId={data.vehicle.id}
        panels={panels}
        circuits={data.circuits}
        readings={readings}
        nominalVolts={nominalVolts}
        tapsInStock={taps}
        askedAtFirst={search}
        addressOf={(search) => `/jobs/${data.id}/feed${search === '' ? '' : `?${search}`}`}
        toRead={(panel, slot, state, holes) => (
          <ButtonLink href={readHref(data.id, panel, slot, state, holes)}>
            {readWords(state, holes)}
          </ButtonLink>
        )}
        deeds={(candidate, ask, text) => (
          <>
            {candidate.verdict === 'refused' ? null : (
              <ButtonLink look="primary" href={planHref(data.id, data.circuits, candidate, ask)}>
                Into a plan
              </ButtonLink>
            )}
            <OntoJob text={text} />
          </>
        )}
      />
    </div>
  );
}

function OntoJob({ text }: { text: string }) {
  const { record } = useJob();
  const [said, setSaid] = useState<string | null>(null);
  const write = () => {
    const taken = record(noteOf(text));
    setSaid(taken.ok ? '✓ Written onto the job' : taken.message);
  };
  return (
    <>
      <Button onClick={write}>Write onto the job</Button>
      {said ? (
        <p role="status" className="self-center font-semibold">
          {said}
        </p>
      ) : null}
    </>
  );
}
