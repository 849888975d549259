'use client';

import { type ComponentType, useEffect, useState } from 'react';
import { loadHandOverSheet, loadJobPage } from '@/features/jobs';
import { JOB_VIEWS, type JobView } from '@/http/places';
import { onItsWay, whenShown } from '@/ui/atRest';

/** The program of each view, fetched when it is looked at, and those of all others once the first stands. */
const LOADERS: Readonly<Record<JobView, () => Promise<ComponentType>>> = {
  job: loadJobPage,
  trace: () => import('@/features/trace').then(({ TraceView }) => TraceView),
  boxes: () => import('@/features/boxes').then(({ BoxTest }) => BoxTest),
  wires: () => import('@/features/wires').then(({ WiresView }) => WiresView),
  combinations: () => import('@/features/combinations').then(({ CombinationsView }) => CombinationsView),
  sums: () => import('@/features/sums').then(({ JobSums }) => JobSums),
  feed: () => import('@/features/feeds').then(({ JobFeeds }) => JobFeeds),
  change: () => import('@/features/changes').then(({ ChangeView }) => ChangeView),
  sheet: loadHandOverSheet,
};

const here = new Map<JobView, ComponentType>();
/** So long until what could not be fetched is fetched again. */
const RETRY_MS = 3000;
/** So long after a view stands the others are fetched. */
const OTHERS_MS = 300;

async function fetched(view: JobView): Promise<boolean> {
  if (here.has(view)) return true;
  try {
    here.set(view, await LOADERS[view]());
    return true;
  } catch {
    return false;
  }
}

/** The view, or null until its program is there; a server that is away is asked again. */
export function useView(view: JobView): ComponentType | null {
  const [, setCount] = useState(0);
  const shown = here.get(view) ?? null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was drawn when the view was asked for decides
  useEffect(() => {
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const end = onItsWay('ahead');
    const get = async () => {
      const there = await fetched(view);
      if (gone) return;
      if (!there) {
        timer = setTimeout(get, RETRY_MS);
        return;
      }
      // It may have come between the drawing and this.
      if (shown === null) setCount((count) => count + 1);
      // Whoever then loses the signal has them all; not before all that is looked at is there.
      await whenShown();
      if (gone) return;
      timer = setTimeout(() => void Promise.all(JOB_VIEWS.map(fetched)).then(end), OTHERS_MS);
    };
    void get();
    return () => {
      gone = true;
      clearTimeout(timer);
      end();
    };
  }, [view]);
  return shown;
}
