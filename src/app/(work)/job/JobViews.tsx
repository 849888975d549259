'use client';

import { usePathname } from 'next/navigation';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { type JobView, jobPlace } from '@/http/places';
import { beginDiagnosis, endDiagnosisAhead } from '@/job/diagnosisAhead';
import { JobFrame } from '@/job/JobFrame';
import { JobProvider } from '@/job/JobProvider';
import { jobOpener, type OpenJob } from '@/log/openJob';
import { useWho } from '@/sync/who';
import { useSight } from '@/ui/address';
import { useOnItsWay } from '@/ui/atRest';
import { Button, ButtonLink } from '@/ui/controls';
import { useView } from './views';

const OPENING: OpenJob = { kind: 'opening' };

/** The job and the view that the address names, from what this browser holds. */
export function JobViews() {
  // While the document is built there is no address; the first drawing in a browser is the same as that.
  const here = useSyncExternalStore(
    noChange,
    () => true,
    () => false,
  );
  const path = usePathname();
  const place = here ? jobPlace(path) : null;
  if (!here) return <Opening />;
  if (!place) return <NoSuchJob />;
  return <OneJob key={place.jobId} jobId={place.jobId} view={place.view} path={path} />;
}

const noChange = () => () => undefined;

function OneJob({ jobId, view, path }: { jobId: string; view: JobView; path: string }) {
  const opener = useMemo(() => jobOpener(jobId), [jobId]);
  const opened = useSyncExternalStore(opener.subscribe, opener.read, () => OPENING);
  useEffect(() => opener.start(), [opener]);
  const title = opened.kind === 'open' ? opened.job.title : opened.kind === 'unknown' ? 'No such job' : null;
  useEffect(() => {
    if (title !== null) document.title = `${title} · Every Trace`;
  }, [title]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: where the job is begun with decides; later it has its worker
  useEffect(() => {
    if (view === 'trace') beginDiagnosis();
    return endDiagnosisAhead;
  }, []);
  const View = useView(view);
  const who = useWho();
  // Times are told in the zone of the workshop.
  const opening = opened.kind === 'opening' || who === undefined;
  useOnItsWay(opening || (opened.kind === 'open' && View === null));
  useSight(opened.kind === 'open' && who !== undefined ? path : null);
  if (opening) return <Opening />;
  if (opened.kind === 'unknown') return <NoSuchJob />;
  if (opened.kind === 'signed-out') return <SignedOut path={path} />;
  if (opened.kind === 'away') return <Away again={() => void opener.refresh()} />;
  return (
    <JobProvider data={opened.job} store={opened.store} refresh={() => void opener.refresh()}>
      <JobFrame view={view}>{View ? <View /> : <Opening />}</JobFrame>
    </JobProvider>
  );
}

function Opening() {
  return (
    <p className="px-4 py-16 text-center text-soft" role="status">
      Opening the job …
    </p>
  );
}

function Away({ again }: { again: () => void }) {
  return (
    <div className="mx-auto max-w-xl px-4 py-16">
      <h1 className="text-2xl">This job is not in this browser yet</h1>
      <p className="mt-3">
        The server does not answer, and the job was not opened here before. It opens by itself when the server
        answers.
      </p>
      <p className="mt-6 flex gap-3">
        <Button look="primary" onClick={again}>
          Try again
        </Button>
        <ButtonLink href="/">To Today</ButtonLink>
      </p>
    </div>
  );
}

function SignedOut({ path }: { path: string }) {
  return (
    <div className="mx-auto max-w-xl px-4 py-16">
      <h1 className="text-2xl">Nobody is signed in here</h1>
      <p className="mt-3">The job opens once somebody of its shop has signed in.</p>
      <p className="mt-6">
        <ButtonLink look="primary" href={`/sign-in?to=${encodeURIComponent(path)}`}>
          Sign in
        </ButtonLink>
      </p>
    </div>
  );
}

function NoSuchJob() {
  return (
    <div className="mx-auto max-w-xl px-4 py-16">
      <h1 className="text-2xl">There is no such job in this shop</h1>
      <p className="mt-3">
        It may have been opened in another shop, or the address was typed with a slip. Nothing that you
        entered is lost.
      </p>
      <p className="mt-6 flex gap-3">
        <ButtonLink look="primary" href="/">
          To Today
        </ButtonLink>
        <ButtonLink href="/jobs">To all jobs</ButtonLink>
      </p>
    </div>
  );
}
