'use client';

import { useCallback, useMemo, useState } from 'react';
import type { CircuitFile, FunctionStateName } from '#core/format';
import { conditionAt, conditionOfRow, type DialPositions, dialsOf, positionsIn } from '#core/live';
import { cellKey } from '#core/log';
import { type CellOf, StateTableView } from '@/features/circuits';
import { useDescribed, useJob } from '@/job/JobProvider';
import { SeenCell } from '@/job/SeenCell';
import { newId } from '@/ui/newId';
import { useCircuitWorker } from '@/workers/useCircuitWorker';

const SOUND = { faults: [], done: [], fusesOpen: true } as const;

/** Every combination of key and switches: what is expected, and what was seen there on this job. */
export function CombinationsView() {
  const { circuit, job } = useJob();
  const [vary, setVary] = useState<readonly string[] | null>(null);
  const { described } = useDescribed();
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
  const { job } = useJob();
  const ask = useCircuitWorker(circuit);
  const { complaint } = job;
  const at = useMemo((): DialPositions => {
    const asked = circuit.conditions.find(({ id }) => id === complaint?.condition) ?? circuit.conditions[0];
    return asked ? positionsIn(circuit, asked) : {};
  }, [circuit, complaint?.condition]);
  // The cells find by themselves what was seen: the table stays as it is while entries come in, and so does what is open in it.
  const cellOf = useCallback<CellOf>(
    (row, index) => (
      <RowCell
        circuit={circuit}
        at={{ ...at, ...row.at }}
        functionIndex={index}
        should={row.states[index]!}
      />
    ),
    [circuit, at],
  );
  return (
    <div className="px-3 py-4 lg:px-5">
      <p className="no-print mb-3 max-w-prose text-sm text-soft">
        Tap a cell and say what you see; what differs counts in the trace like a reading. A circuit set up on
        the bench is a vehicle of its own here: what works there says nothing of the wires in the vehicle.
      </p>
      <StateTableView
        circuit={circuit}
        ask={ask}
        at={at}
        setting={SOUND}
        cellOf={cellOf}
        first={complaint?.function}
        vary={vary}
      />
    </div>
  );
}

/** One function in one row: what is expected of it, and what was seen. */
function RowCell({
  circuit,
  at,
  functionIndex,
  should,
}: {
  circuit: CircuitFile;
  at: DialPositions;
  functionIndex: number;
  should: 'works' | 'weak' | 'dead';
}) {
  const { job, record } = useJob();
  const { complaint } = job;
  const one = circuit.functions[functionIndex]!;
  const known = conditionAt(circuit, at);
  const see = (state: FunctionStateName) => {
    // A row that the map has no condition for becomes one of this job, with the first that is seen there.
    const condition = known ?? conditionOfRow(circuit, at, `seen-${newId().slice(0, 8)}`);
    const check = {
      kind: 'function-check',
      function: one.id,
      condition: condition.id,
      state,
    } as const;
    if (known) record(check);
    else record({ kind: 'condition-set', condition }, check);
  };
  return (
    <SeenCell
      functionName={one.name}
      conditionName={known?.name ?? conditionOfRow(circuit, at, '').name}
      should={should}
      seen={known ? job.checks.get(cellKey(one.id, known.id))?.state : undefined}
      complaint={complaint?.function === one.id && complaint.condition === known?.id}
      onSay={see}
    />
  );
}
