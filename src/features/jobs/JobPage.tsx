'use client';

import { useLater } from '@/ui/useLater';
import { ComplaintSection } from './ComplaintSection';

const loadSections = () => import('./JobSections').then((loaded) => loaded.JobSections);

/** The job on one page that grows with the order of work: what it is about at once, the rest while it is read. */
export function JobPage() {
  const Sections = useLater(loadSections, false, 300);
  return (
    <div className="mx-auto max-w-6xl px-3 pb-16 lg:px-5 [&>section:first-child]:border-t-0">
      <ComplaintSection />
      {Sections ? <Sections /> : <div className="min-h-dvh border-t-2 border-line" />}
    </div>
  );
}
