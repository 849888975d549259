'use client';

import { useCallback, useMemo, useState } from 'react';
import type { CircuitFile, FunctionStateName } from '#core/format';
import { conditionAt, conditionOfRow, type DialPositions, dialsOf, positionsIn } from '#core/live';
import { cellKey } from '#core/log';
import { type CellOf, StateTableView } from '@/features/circuits';
import { SeenCell, useJob } from '@/features/jobs';
import { useCircuitWorker } from '@/workers/useCircuitWorker';

const SOUND = { faults: [], done: [], fusesOpen: true } as const;

/** Every combination of key and switches: what is expected, and what was seen there on this job. */
export function CombinationsView() {
  const { circuit, job, diagnosis } = useJob();
  const [vary, setVary] = useState<readonly string[] | null>(null);
  const { described } = diagnosis;
  if (circuit && described && vary === null) {
    setVary(dialsAmong(circuit, described.partsOfFunction[job.complaint?.function ?? ''] ?? []));
  }
  if (!circuit) {
    return (
      <p className="p-4 text-lg">
        This vehicle has no circuit yet: what works in which position cannot be worked out.
      </p>
    );
  }
  // Chosen once: what is seen may give the circuit a condition more, and nothing moves for that.
  if (vary === null) return <p className="p-4 text-soft">Working out what should be on …</p>;
  return <SeenTable circuit={circuit} vary={vary} />;
}

/** What can be turned on the way of what failed; what is elsewhere stays as it stands until somebody turns it. */
function dialsAmong(circuit: CircuitFile, parts: readonly string[]): string[] {
  const all = dialsOf(circuit).map(({ id }) => id);
  if (parts.length === 0) return all;
  const keyed = circuit.parts.some(({ id, kind }) => kind === 'key-contact' && parts.includes(id));
  return all.filter((id) => parts.includes(id) || (id === 'key' && keyed));
}

function SeenTable({ circuit, vary }: { circuit: CircuitFile; vary: readonly string[] }) {
  const { job, record } = useJob();
  const ask = useCircuitWorker(circuit);
  const { complaint } = job;
  const at = useMemo((): DialPositions => {
    const asked = circuit.conditions.find(({ id }) => id === complaint?.condition) ?? circuit.conditions[0];
    return asked ? positionsIn(circuit, asked) : {};
  }, [circuit, complaint?.condition]);
  const see = useCallback(
    (row: DialPositions, functionId: string, state: FunctionStateName) => {
      const known = conditionAt(circuit, row);
      // A row that the map has no condition for becomes one of this job, with the first that is seen there.
      const condition = known ?? conditionOfRow(circuit, row, `seen-${crypto.randomUUID().slice(0, 8)}`);
      const check = {
        kind: 'function-check',
        function: functionId,
        condition: condition.id,
        state,
      } as const;
      if (known) record(check);
      else record({ kind: 'condition-set', condition }, check);
    },
    [circuit, record],
  );
  const cellOf = useCallback<CellOf>(
    (row, index) => {
      const one = circuit.functions[index]!;
      const here = { ...at, ...row.at };
      const condition = conditionAt(circuit, here);
      const seen = condition ? job.checks.get(cellKey(one.id, condition.id))?.state : undefined;
      return (
        <SeenCell
          functionName={one.name}
          conditionName={condition?.name ?? conditionOfRow(circuit, here, '').name}
          should={row.states[index]}
          seen={seen}
          complaint={complaint?.function === one.id && complaint.condition === condition?.id}
          onSay={(state) => see(here, one.id, state)}
        />
      );
    },
    [circuit, at, job.checks, complaint, see],
  );
  return (
    <div className="px-3 py-4 lg:px-5">
      <StateTableView
        circuit={circuit}
        ask={ask}
        at={at}
        setting={SOUND}
        cellOf={cellOf}
        first={complaint?.function}
        vary={vary}
      />
      <p className="no-print mt-3 max-w-prose text-sm text-soft">
        Tap a cell and say what you see; what differs counts in the trace like a reading. A circuit set up on
        the bench is a vehicle of its own here: what works there says nothing of the wires in the vehicle.
      </p>
    </div>
  );
}
