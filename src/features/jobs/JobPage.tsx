'use client';

import { useJob } from '@/job/JobProvider';
import { useLater } from '@/ui/useLater';
import { ComplaintSection } from './ComplaintSection';

/** What whoever takes the job over in the middle has to know; its program comes where there is something to say. */
const loadTaken = () => import('./TakenOver').then((loaded) => loaded.TakenOver);
const loadSections = () => import('./JobSections').then((loaded) => loaded.JobSections);

/** The job on one page that grows with the order of work: what it is about at once, the rest while it is read. */
export function JobPage() {
  const { job } = useJob();
  const handed = job.handedOver !== null && job.state !== 'closed';
  const Taken = useLater(loadTaken, handed);
  const Sections = useLater(loadSections, false, 300);
  return (
    <div className="mx-auto max-w-6xl px-3 pb-16 lg:px-5 [&>section:first-child]:border-t-0">
      {handed && Taken ? <Taken /> : null}
      <ComplaintSection />
      {Sections ? <Sections /> : <div className="min-h-dvh border-t-2 border-line" />}
    </div>
  );
}
