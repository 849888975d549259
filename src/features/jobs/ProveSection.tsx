'use client';

import type { FunctionStateName } from '#core/format';
import { cellKey, conditionName, functionName, missingProofs, STATE_WORDS } from '#core/log';
import { useDiagnosis, useJob } from '@/job/JobProvider';
import { Button, ButtonLink, Section } from '@/ui/controls';
import { CloseForm } from './CloseForm';
import { OwedList } from './OwedList';
import { WatchList } from './WatchList';

const SEEN: readonly FunctionStateName[] = ['works', 'weak', 'dead'];

export function ProveSection() {
  const { data, job, circuit, record } = useJob();
  const diagnosis = useDiagnosis();
  const { proofs } = diagnosis;
  const missing = missingProofs(job, proofs, circuit);
  const first = proofs[0];
  const seen = first ? job.proofs.get(cellKey(first.function, first.condition)) : undefined;
  const stillThere = job.repairs.length > 0 && first && seen && seen.state !== first.expected;
  return (
    <Section
      id="prove"
      number={6}
      title="Prove"
      done={job.repairs.length > 0 && proofs.length > 0 && missing.length === 0}
    >
      {job.repairs.length === 0 ? (
        <p className="text-soft">
          After the repair: the failed function in the condition that failed, and every function that shares a
          part with what was touched.
        </p>
      ) : (
        <ul className="divide-y divide-line" data-testid="proofs">
          {proofs.map((proof) => {
            const cell = job.proofs.get(cellKey(proof.function, proof.condition));
            const right = cell?.state === proof.expected;
            const should = proof.expected === 'dead' ? 'off' : 'works';
            return (
              <li
                key={cellKey(proof.function, proof.condition)}
                className="flex flex-wrap items-center justify-between gap-2 py-2"
              >
                <div>
                  <p className="font-semibold">
                    {functionName(circuit, proof.function)}{' '}
                    <span className="font-normal text-soft">should be: {should}</span>
                  </p>
                  <p className="text-sm text-soft">
                    {conditionName(circuit, proof.condition)} — {proof.because}
                  </p>
                </div>
                <div className="flex flex-wrap items-center gap-2">
                  {cell ? (
                    <span className={right ? 'text-good' : 'font-bold text-bad'}>
                      {right ? '✓ ' : '✗ '}
                      {cell.state === 'dead' && proof.expected === 'dead' ? 'off' : STATE_WORDS[cell.state]}
                    </span>
                  ) : null}
                  {SEEN.map((state) => (
                    <Button
                      key={state}
                      aria-pressed={cell?.state === state}
                      aria-label={`${functionName(circuit, proof.function)}, ${conditionName(circuit, proof.condition)}: ${state === 'dead' && should === 'off' ? 'off' : state}`}
                      onClick={() =>
                        record({
                          kind: 'proof',
                          function: proof.function,
                          condition: proof.condition,
                          state,
                          expected: proof.expected,
                        })
                      }
                    >
                      {state === 'dead' && should === 'off'
                        ? 'Off'
                        : `${STATE_WORDS[state][0]?.toUpperCase()}${STATE_WORDS[state].slice(1)}`}
                    </Button>
                  ))}
                </div>
              </li>
            );
          })}
        </ul>
      )}
      <OwedList />
      {stillThere ? (
        <div className="mt-3 border-l-4 border-caution bg-caution-wash px-3 py-2" data-testid="still-there">
          <p>
            <strong>The complaint is still there.</strong> What was mended counts as mended; the search goes
            on with the rest, and every reading so far still counts.
          </p>
          <ButtonLink look="primary" href={`/jobs/${data.id}/trace`} className="mt-2">
            Go on with the trace
          </ButtonLink>
        </div>
      ) : null}
      {job.repairs.length > 0 ? (
        <p className="mt-3 flex flex-wrap gap-2">
          <ButtonLink href={`/jobs/${data.id}/sheet`}>Hand-over sheet</ButtonLink>
          <a
            href={`/api/jobs/${data.id}/file`}
            download
            className="inline-flex min-h-11 items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold hover:border-ink"
          >
            Export the job (JSON)
          </a>
        </p>
      ) : null}
      <WatchList />
      <CloseForm missing={missing} />
    </Section>
  );
}

/** The end of a job that is work: what is to be watched, and its closing. */
export function EndSection() {
  const { data, job, circuit } = useJob();
  return (
    <Section id="end" number={4} title="Close" done={job.state === 'closed'}>
      <p>
        <ButtonLink href={`/jobs/${data.id}/sheet`}>Hand-over sheet</ButtonLink>
      </p>
      <OwedList />
      <WatchList />
      <CloseForm missing={missingProofs(job, [], circuit)} />
    </Section>
  );
}
