'use client';

/** The diagnosis of a job as its views read it: a worker kept in step with the log, once somebody wants to know. */
import { startTransition, useEffect, useMemo, useRef, useState } from 'react';
import {
  type Assessment,
  type BarredTest,
  fittedKey,
  type PriorTable,
  type Proposal,
  type RelayDuty,
  type RequiredProof,
  type Run,
  type TakenReading,
  testId,
} from '#core/diagnosis';
import { type CircuitFile, USUAL_HAND } from '#core/format';
import {
  complaintOf,
  fittedNow,
  fusesTaken,
  type JobState,
  meantReadings,
  notNowOf,
  refusedTests,
  seenBefore,
  touchedParts,
} from '#core/log';
import { useEqual } from '@/sync/useEqual';
import { ownerHere, useWho } from '@/sync/who';
import { useOnItsWay } from '@/ui/atRest';
import type { PermittedTest, WorkerAnswer, WorkerRequest } from '@/workers/diagnosisMessages';
import { diagnosisWorker } from './diagnosisAhead';

interface Described {
  readonly expected: Readonly<Record<string, 'works' | 'weak' | 'dead'>>;
  readonly partsOfFunction: Readonly<Record<string, readonly string[]>>;
}

export interface Diagnosis {
  /** Null until the worker has read the circuit. */
  readonly described: Described | null;
  readonly runs: readonly Run[];
  readonly soundVolts: Readonly<Record<string, number>>;
  /** What every relay of the runs has to do in the condition of the complaint. */
  readonly relayDuties: Readonly<Record<string, RelayDuty>>;
  readonly permitted: readonly PermittedTest[];
  /** Tests that safety forbids, with the reasons. */
  readonly forbidden: readonly BarredTest[];
  /** Null until everything is worked out; a card may stand before. */
  readonly assessment: Assessment | null;
  readonly proofs: readonly RequiredProof[];
  /** The card shown: the chosen test, or else the proposed one. */
  readonly card: Proposal | null;
  readonly chosen: string | null;
  readonly choose: (testId: string | null) => void;
  /** The last entry is still being worked in: no card may take another meanwhile. Not while a first card stands. */
  readonly pending: boolean;
  /** How much of the predictions is worked out, from 0 to 1. */
  readonly prepared: number;
  /** Stops working them out; a reload or another complaint starts again. */
  readonly cancel: () => void;
  readonly cancelled: boolean;
  readonly failure: string | null;
  /** Starts it again after it stopped; null where it runs, or is tried again by itself. */
  readonly startAgain: (() => void) | null;
  /** Parts of which one number would change the next test. */
  readonly wouldHelp: readonly string[];
  /** What the diagnosis reasons from. */
  readonly readings: readonly TakenReading[];
}

/** How much somebody wants to know: nothing; what a sound circuit does; which fault it is and what to test next. */
export const WANTED = { nothing: 0, described: 1, diagnosed: 2 } as const;
export type Wanted = (typeof WANTED)[keyof typeof WANTED];

/** So long until a program that could not be fetched is fetched again. */
const RETRY_MS = 3000;

const NOTHING: readonly string[] = [];
const NO_VOLTS: Readonly<Record<string, number>> = {};
const NO_TESTS: readonly PermittedTest[] = [];
const NO_BARRED: readonly BarredTest[] = [];
const NO_DUTIES: Readonly<Record<string, RelayDuty>> = {};

/**
 * The card that comes by itself; what is asked above it is not asked by it once more. The one that somebody has begun with
 * stays, in the words that it has now.
 */
function proposed(
  assessment: Assessment | undefined,
  complaint: JobState['complaint'],
  begun: Proposal | null,
): Proposal | undefined {
  if (!assessment) return begun ?? undefined;
  const { next, askFailsNow } = assessment;
  const same = begun && next.find(({ id }) => id === begun.id);
  if (same) return same;
  const above =
    askFailsNow && complaint?.function && complaint.condition
      ? testId({ kind: 'function', function: complaint.function, condition: complaint.condition })
      : null;
  return next.find(({ id }) => id !== above) ?? next[0];
}

interface Opened {
  readonly key: string;
  readonly runs: readonly Run[];
  readonly soundVolts: Readonly<Record<string, number>>;
  /** What every relay of the runs has to do in the condition of the complaint. */
  readonly relayDuties: Readonly<Record<string, RelayDuty>>;
  readonly permitted: readonly PermittedTest[];
  readonly forbidden: readonly BarredTest[];
}

/** The card to begin with, and what it was asked about. */
interface First {
  readonly question: string;
  readonly card: Proposal;
}

interface Assessed {
  /** What it was asked about; an answer to an older question is no card for the present one. */
  readonly question: string;
  readonly assessment: Assessment;
  readonly card: Proposal | null;
  readonly proofs: readonly RequiredProof[];
}

/**
 * Keeps a worker in step with the log: the circuit once, the complaint when it changes, then each reading. Nothing is worked
 * out that nobody wants to know.
 */
export function useDiagnosisWorker(
  circuit: CircuitFile | null,
  job: JobState,
  nominalVolts: number | null,
  priors: PriorTable,
  halted: boolean,
  wanted: Wanted,
): Diagnosis {
  const worker = useRef<Worker | null>(null);
  const latest = useRef(0);
  const asked = useRef('');
  const [described, setDescribed] = useState<Described | null>(null);
  const [opened, setOpened] = useState<Opened | null>(null);
  const [assessed, setAssessed] = useState<Assessed | null>(null);
  const [first, setFirst] = useState<First | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [stopped, setStopped] = useState(false);
  const [attempt, setAttempt] = useState(0);
  /** How often the worker broke since it last gave an answer. */
  const broke = useRef(0);
  const [prepared, setPrepared] = useState(0);
  const [cancelled, setCancelled] = useState(false);
  const [wouldHelp, setWouldHelp] = useState<readonly string[]>(NOTHING);
  const hand = useEqual(useWho()?.hand ?? USUAL_HAND);
  const notNow = useEqual(notNowOf(job));
  const complaint = job.complaint;
  const asks = complaintOf(job, nominalVolts);
  const key = asks ? `${asks.function}|${asks.condition}` : null;
  const taken = fusesTaken(job);

  const isWanted = wanted >= WANTED.described;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another attempt is a new worker
  useEffect(() => {
    if (!circuit || !isWanted) return;
    const made = diagnosisWorker();
    worker.current = made;
    let retry: ReturnType<typeof setTimeout> | undefined;
    let answered = false;
    made.onmessage = ({ data }: MessageEvent<WorkerAnswer>) => {
      answered = true;
      if (data.type === 'described') setDescribed(data);
      else if (data.type === 'opened') {
        setOpened({ ...data, key: `${data.complaint.function}|${data.complaint.condition}` });
      } else if (data.type === 'preparing') setPrepared(data.done);
      else if (data.type === 'first') {
        const question = asked.current;
        if (data.request === latest.current) setFirst({ card: data.card, question });
      } else if (data.type === 'would-help') {
        if (data.request === latest.current) setWouldHelp(data.parts);
      } else if (data.type === 'assessed') {
        const question = asked.current;
        // In slices, so that a key that is pressed meanwhile is not kept waiting.
        broke.current = 0;
        if (data.request === latest.current) startTransition(() => setAssessed({ ...data, question }));
      } else setFailure(data.message);
    };
    made.onerror = () => {
      if (answered) {
        made.terminate();
        broke.current += 1;
        if (broke.current === 1) setAttempt((before) => before + 1);
        else setStopped(true);
        return;
      }
      // Its program could not be fetched.
      setFailure(
        'The diagnosis cannot be loaded yet: the server does not answer. It is tried again by itself.',
      );
      retry = setTimeout(() => setAttempt((before) => before + 1), RETRY_MS);
    };
    made.postMessage({
      type: 'describe',
      circuit,
      owner: ownerHere(),
      cores: navigator.hardwareConcurrency || 1,
    } satisfies WorkerRequest);
    return () => {
      clearTimeout(retry);
      setFailure(null);
      setStopped(false);
      worker.current = null;
      made.terminate();
      setDescribed(null);
      setOpened(null);
      setAssessed(null);
      setFirst(null);
      setWouldHelp(NOTHING);
    };
  }, [circuit, attempt, isWanted]);

  useEffect(() => {
    if (!described || !key || wanted < WANTED.diagnosed) return;
    const [functionId = '', conditionId = ''] = key.split('|');
    setAssessed(null);
    setFirst(null);
    setPrepared(0);
    setCancelled(false);
    worker.current?.postMessage({
      type: 'open',
      complaint: { function: functionId, condition: conditionId },
      priors,
      appliance: taken > 0 ? { fusesTaken: taken } : null,
      hand,
      notNow,
    } satisfies WorkerRequest);
  }, [described, key, priors, taken, hand, notNow, wanted]);

  const readings = useMemo(() => meantReadings(job, circuit), [job, circuit]);
  const { fitted } = useMemo(() => fittedNow(job), [job]);
  const ready = opened !== null && opened.key === key;
  const permitted = opened?.permitted ?? NO_TESTS;
  const refused = useEqual(refusedTests(job, circuit, halted));
  const touched = useEqual(touchedParts(job));
  const seen = useEqual(seenBefore(job));
  const question = [
    ...readings.map((one) => `${one.id}${one.before ? ' before' : ''}${fittedKey(one.fitted)}`),
    ...refused,
    ...notNow,
    fittedKey(fitted),
    chosen,
  ].join(' ');
  useEffect(() => {
    // Begun anew, it is asked anew.
    if (!ready || opened === null) return;
    latest.current += 1;
    asked.current = question;
    worker.current?.postMessage({
      type: 'assess',
      request: latest.current,
      input: { readings, refused, opened: job.opened, fitted },
      chosen,
      touched,
      seen,
    } satisfies WorkerRequest);
  }, [ready, opened, readings, refused, job.opened, fitted, touched, seen, chosen, question]);

  const begun = first?.question === question ? first.card : null;
  const unknown = assessed?.question !== question;
  const pending = unknown && (assessed !== null || begun === null);
  const asksForIt = circuit !== null && key !== null && wanted >= WANTED.diagnosed;
  useOnItsWay(asksForIt && unknown && failure === null && !stopped && !cancelled);
  return useMemo(
    (): Diagnosis => ({
      described,
      runs: opened?.runs ?? [],
      soundVolts: opened?.soundVolts ?? NO_VOLTS,
      relayDuties: opened?.relayDuties ?? NO_DUTIES,
      permitted,
      forbidden: opened?.forbidden ?? NO_BARRED,
      assessment: ready ? (assessed?.assessment ?? null) : null,
      proofs: assessed?.proofs ?? [],
      // What was chosen and may not be done any more gives way to what is proposed.
      card: (chosen ? assessed?.card : null) ?? proposed(assessed?.assessment, complaint, begun) ?? null,
      chosen: chosen === null || pending ? chosen : (assessed?.card?.id ?? null),
      choose: setChosen,
      pending,
      prepared,
      cancel: () => {
        setCancelled(true);
        worker.current?.postMessage({ type: 'cancel' } satisfies WorkerRequest);
      },
      cancelled,
      failure: stopped ? 'The diagnosis stopped twice. Every reading is kept.' : failure,
      startAgain: stopped ? () => setAttempt((before) => before + 1) : null,
      wouldHelp,
      readings,
    }),
    [
      complaint,
      permitted,
      wouldHelp,
      readings,
      described,
      opened,
      assessed,
      begun,
      chosen,
      failure,
      stopped,
      ready,
      pending,
      prepared,
      cancelled,
    ],
  );
}
