'use client';

import {
  createContext,
  type ReactNode,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useState,
  useSyncExternalStore,
} from 'react';
import type { ApplianceFinding } from '#core/diagnosis';
import type { CircuitFile, EventBody, Problem } from '#core/format';
import { applianceOf, type JobState, onMaps, voltsOf } from '#core/log';
import type { HeldJob } from '@/log/heldJob';
import type { Refusal, Sending } from '@/log/sender';
import type { JobStore, Recorded } from '@/log/store';
import { useEqual } from '@/sync/useEqual';
import { type Diagnosis, useDiagnosisWorker, WANTED, type Wanted } from './useDiagnosisWorker';

interface JobContextValue {
  readonly data: HeldJob;
  /** Takes in what the server has learned of the job's maps since. */
  readonly refresh: () => void;
  readonly circuit: CircuitFile | null;
  readonly job: JobState;
  readonly sending: Sending;
  /** Puts entries into the log, or says why they cannot be; what was typed stays where it is then. */
  readonly record: (...bodies: readonly EventBody[]) => Recorded;
  /** Where the circuits of this job contradict each other. */
  readonly disagreements: readonly Problem[];
  /** Why the last entry was not recorded; null where it was. */
  readonly rejection: string | null;
  /** What the server will not take. */
  readonly refusals: readonly Refusal[];
  readonly giveUp: (id: string) => Promise<void>;
  readonly tryAgain: () => void;
  /** Keeps a picture until the server has it. */
  readonly keepPicture: (id: string, blob: Blob) => Promise<void>;
  readonly store: JobStore;
  /** Pictures that are still only in this browser. */
  readonly pictures: ReadonlyMap<string, Blob>;
  /** A portable appliance that was plugged in, and what it means; null where there was none. */
  readonly appliance: ApplianceFinding | null;
  /** Nominal voltage of the job, from the vehicle or as entered here; null until known. */
  readonly nominalVolts: number | null;
}

const JobContext = createContext<JobContextValue | null>(null);

export function useJob(): JobContextValue {
  const value = useContext(JobContext);
  if (!value) throw new Error('useJob is for inside a JobProvider.');
  return value;
}

interface DiagnosisContextValue {
  readonly diagnosis: Diagnosis;
  /** Once it is wanted it goes on for as long as the job is open. */
  readonly want: (more: Wanted) => void;
}

const DiagnosisContext = createContext<DiagnosisContextValue | null>(null);

function useWanted(wanted: Wanted): Diagnosis {
  const value = useContext(DiagnosisContext);
  if (!value) throw new Error('What the diagnosis says is for inside a JobProvider.');
  const { diagnosis, want } = value;
  // Before the browser draws, so that the page is not taken for shown before it is worked out (`ui/atRest.ts`).
  useLayoutEffect(() => want(wanted), [want, wanted]);
  return diagnosis;
}

/** Which fault it is and what to test next: whoever reads it has it worked out. */
export const useDiagnosis = (): Diagnosis => useWanted(WANTED.diagnosed);

/** What a sound circuit does, and which parts serve a function; nothing is diagnosed for that. */
export function useDescribed(): Pick<Diagnosis, 'described' | 'failure'> {
  return useWanted(WANTED.described);
}

/** Gives the views of a job what they read and write. */
export function JobProvider({
  data,
  store,
  refresh,
  children,
}: {
  data: HeldJob;
  store: JobStore;
  refresh: () => void;
  children: ReactNode;
}) {
  useEffect(() => store.start(), [store]);
  const [rejection, setRejection] = useState<string | null>(null);
  const { job, sending, pictures, refusals } = useSyncExternalStore(store.subscribe, store.read, store.read);
  // What the server tells anew and is the same starts nothing anew.
  const circuits = useEqual(data.circuits);
  const boxes = useEqual(data.panelSet);
  const priors = useEqual(data.priors);
  const answers = useEqual(job.slotStates.filter(({ safetyCritical }) => safetyCritical !== undefined));
  const settings = useEqual(job.settings);
  const {
    panelSet,
    circuit,
    problems: disagreements,
  } = useMemo(
    () => onMaps({ circuits, panelSet: boxes }, { slotStates: answers, settings }),
    [circuits, boxes, answers, settings],
  );
  const nominalVolts = voltsOf(job, data);
  const panels = panelSet;
  const appliance = useMemo(
    () => applianceOf(circuit, panels, job, nominalVolts),
    [circuit, panels, job, nominalVolts],
  );
  const halted = appliance?.halted === true;
  const [wanted, setWanted] = useState<Wanted>(WANTED.nothing);
  const diagnosis = useDiagnosisWorker(circuit, job, nominalVolts, priors, halted, wanted);
  const known = useMemo(
    () => ({
      diagnosis,
      want: (more: Wanted) => setWanted((before) => (more > before ? more : before)),
    }),
    [diagnosis],
  );
  const value = useMemo(
    (): JobContextValue => ({
      data: { ...data, panelSet },
      refresh,
      circuit,
      job,
      sending,
      record: (...bodies) => {
        const recorded = store.record(...bodies);
        setRejection(recorded.ok ? null : recorded.message);
        return recorded;
      },
      disagreements,
      rejection,
      refusals,
      giveUp: (id) => store.giveUp(id),
      tryAgain: () => store.tryAgain(),
      keepPicture: (id, blob) => store.keepPicture(id, blob),
      store,
      pictures,
      appliance,
      nominalVolts,
    }),
    [
      data,
      panelSet,
      refresh,
      circuit,
      job,
      sending,
      pictures,
      refusals,
      rejection,
      disagreements,
      store,
      appliance,
      nominalVolts,
    ],
  );
  return (
    <JobContext value={value}>
      <DiagnosisContext value={known}>{children}</DiagnosisContext>
    </JobContext>
  );
}
