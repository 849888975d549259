'use client';

import { useMemo, useState } from 'react';
import { figure, SUMS } from '#core/sizing';
import { useJob } from '@/job/JobProvider';
import { noteOf } from '@/job/noteOf';
import { useSearch } from '@/ui/address';
import { Button } from '@/ui/controls';
import { useCircuitWorker } from '@/workers/useCircuitWorker';
import { SumsView, type Written } from './SumsView';
import { sumNamed, type Typed, typedIn } from './sumAddress';

/** The sums beside a job: from the browser alone, and what they give can be written onto it. */
export function JobSums() {
  const { data, nominalVolts } = useJob();
  const address = useSearch();
  const first = useMemo(() => {
    const search = new URLSearchParams(address);
    const sum = sumNamed(search.get('sum')) ?? SUMS[0]!;
    return { sum, typed: typedIn(sum, search) };
  }, [address]);
  const known = useMemo(
    (): Typed => (nominalVolts === null ? {} : { volts: String(nominalVolts) }),
    [nominalVolts],
  );
  return (
    <div className="px-3 py-4 [--head:3rem] lg:px-5">
      <SumsView
        first={first}
        known={known}
        addressOf={(one, typed) => `/jobs/${data.id}/sums?sum=${one.id}${typed === '' ? '' : `&${typed}`}`}
        put={(written) => <OntoThisJob {...written} />}
        fill={(sum, type) =>
          sum.id === 'drain' ? <DrawsOfCircuit onDraws={(text) => type('draws', text)} /> : null
        }
      />
    </div>
  );
}

/** The draws of the vehicle's own circuits with the key off, into the list. */
function DrawsOfCircuit({ onDraws }: { onDraws: (text: string) => void }) {
  const { circuit } = useJob();
  const ask = useCircuitWorker(circuit);
  const [problem, setProblem] = useState<string | null>(null);
  if (!circuit) return null;
  const take = () =>
    ask({ ask: 'asleep' }).then(
      (draws) => {
        setProblem(draws.length === 0 ? 'The circuits draw nothing with the key off.' : null);
        if (draws.length > 0)
          onDraws(draws.map(({ name, amps }) => `${name} ${figure(amps, 'A')}`).join('\n'));
      },
      (error: Error) => setProblem(error.message),
    );
  return (
    <div className="mt-2">
      <Button onClick={() => void take()}>From the circuits, key off</Button>
      {problem ? (
        <p role="status" className="mt-1 text-soft">
          {problem}
        </p>
      ) : null}
    </div>
  );
}

function OntoThisJob({ sum, text, result }: Written) {
  const { record } = useJob();
  const [said, setSaid] = useState<string | null>(null);
  const write = (label: boolean) => {
    const taken = record(noteOf(text, label ? `${sum.name}: ${result.label}` : undefined));
    setSaid(taken.ok ? (label ? '✓ On the job, with a label' : '✓ On the job') : taken.message);
  };
  return (
    <>
      <Button look="primary" onClick={() => write(false)}>
        Write onto the job
      </Button>
      <Button onClick={() => write(true)}>With a label</Button>
      {said ? (
        <p role="status" className="font-semibold">
          {said}
        </p>
      ) : null}
    </>
  );
}
