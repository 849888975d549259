'use client';

import { cellKey } from '#core/log';
import { useJob } from './JobProvider';
import { SeenCell } from './SeenCell';

/** Functions down, conditions across; each cell says what is expected there and takes what was seen. */
export function FunctionGrid() {
  const { circuit, job, diagnosis, record } = useJob();
  if (!circuit) return null;
  const expected = diagnosis.described?.expected ?? {};
  // What failed comes first, and so do the key and switch positions in which it should work.
  const failing = job.complaint?.function;
  const functions = circuit.functions
    .slice()
    .sort((one, other) => Number(other.id === failing) - Number(one.id === failing));
  const rankOf = (conditionId: string) =>
    failing && expected[cellKey(failing, conditionId)] === 'works' ? 0 : 1;
  const conditions = circuit.conditions.slice().sort((one, other) => rankOf(one.id) - rankOf(other.id));
  return (
    <div className="overflow-x-auto">
      <table className="border-collapse" data-testid="function-grid">
        <caption className="sr-only">Function check: functions down, key and switch positions across</caption>
        <thead>
          <tr>
            <td className="sticky left-0 bg-paper" />
            {conditions.map((condition) => (
              <th
                key={condition.id}
                scope="col"
                className="w-24 px-1.5 pb-2 text-left align-bottom text-sm font-semibold leading-tight"
              >
                {condition.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {functions.map((one) => (
            <tr key={one.id} className="border-t border-line">
              <th
                scope="row"
                className="sticky left-0 z-10 w-44 bg-paper py-1 pr-3 text-left font-semibold leading-tight"
              >
                {one.name}
              </th>
              {conditions.map((condition) => {
                const key = cellKey(one.id, condition.id);
                return (
                  <td key={condition.id} className="p-1">
                    <SeenCell
                      functionName={one.name}
                      conditionName={condition.name}
                      should={expected[key]}
                      seen={job.checks.get(key)?.state}
                      complaint={
                        job.complaint?.function === one.id && job.complaint.condition === condition.id
                      }
                      onSay={(state) =>
                        record({ kind: 'function-check', function: one.id, condition: condition.id, state })
                      }
                    />
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
