'use client';

import { usePathname } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { SUMS } from '#core/sizing';
import { heldJobs } from '@/log/held';
import type { HeldJob } from '@/log/heldJob';
import { Button, ButtonLink } from '@/ui/controls';
import { Dialog } from '@/ui/Dialog';
import { SumsView, type Written } from './SumsView';
import { searchOf, sumNamed, typedIn } from './sumAddress';

/** The sums by themselves; a result goes on to a job that this browser holds. */
export function SumsPage({ search }: { search: string }) {
  // The address names the sum, also after another was chosen on the page, or found by its name; what was typed in it is
  // the page's own after it was opened.
  const [, , id] = usePathname().split('/');
  const opened = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the page was opened with counts once
  const first = useMemo(() => {
    const sum = sumNamed(id) ?? SUMS[0]!;
    const typed = opened.current ? {} : typedIn(sum, new URLSearchParams(search));
    opened.current = true;
    return { sum, typed };
  }, [id]);
  return (
    <SumsView
      first={first}
      addressOf={(one, typed) => `/sums/${one.id}${typed === '' ? '' : `?${typed}`}`}
      put={(written) => <OntoJob {...written} />}
    />
  );
}

function OntoJob({ sum, typed }: Written) {
  const [open, setOpen] = useState(false);
  const [jobs, setJobs] = useState<readonly HeldJob[] | null>(null);
  useEffect(() => {
    if (open) heldJobs().then(setJobs, () => setJobs([]));
  }, [open]);
  return (
    <>
      <Button look="primary" onClick={() => setOpen(true)}>
        Onto a job
      </Button>
      <Dialog title="Onto which job?" open={open} onClose={() => setOpen(false)}>
        {jobs === null ? null : jobs.length === 0 ? (
          <p>No job has been opened in this browser yet. Open one, then its sums: the fields are kept.</p>
        ) : (
          <ul>
            {jobs.map((job) => (
              <li key={job.id} className="border-b border-line">
                <ButtonLink
                  look="quiet"
                  className="w-full justify-start text-left"
                  href={`/jobs/${job.id}/sums?sum=${sum.id}&${searchOf(sum, typed)}`}
                >
                  {job.title} · {job.vehicle.name}
                </ButtonLink>
              </li>
            ))}
          </ul>
        )}
      </Dialog>
    </>
  );
}
