'use client';

import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { FunctionStateName } from '#core/format';
import { cellKey, STATE_WORDS } from '#core/log';
import { useJob } from './JobProvider';

const CHOICES: readonly { state: FunctionStateName; mark: string }[] = [
  { state: 'works', mark: '●' },
  { state: 'weak', mark: '◐' },
  { state: 'dead', mark: '○' },
  { state: 'on-when-off', mark: '!' },
  { state: 'comes-and-goes', mark: '~' },
  { state: 'not-tried', mark: '–' },
];

function markOf(state: FunctionStateName): string {
  return CHOICES.find((one) => one.state === state)?.mark ?? '';
}

/** Functions down, conditions across; each cell says what is expected there and takes what was seen. */
export function FunctionGrid() {
  const { circuit, job, diagnosis, record } = useJob();
  const [open, setOpen] = useState<string | null>(null);
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
                const cell = job.checks.get(key);
                const should = expected[key];
                const shouldWords = should === undefined ? '…' : should === 'dead' ? 'off' : 'works';
                const complaint =
                  job.complaint?.function === one.id && job.complaint.condition === condition.id;
                return (
                  <td key={condition.id} className="p-1">
                    <Popover.Root open={open === key} onOpenChange={(next) => setOpen(next ? key : null)}>
                      <Popover.Trigger
                        aria-label={`${one.name}, ${condition.name}: ${cell ? STATE_WORDS[cell.state] : 'not tried'}, expected ${shouldWords}`}
                        className={`flex min-h-12 w-24 flex-col items-start justify-center rounded-md border-2 px-2 text-left text-sm leading-tight ${
                          cell
                            ? 'border-ink bg-sheet'
                            : should === 'dead'
                              ? 'border-line/60 border-dotted'
                              : 'border-soft border-dashed'
                        } ${complaint ? 'outline-2 outline-copper outline-offset-1' : ''}`}
                      >
                        {cell ? (
                          <span className="font-bold">
                            <span aria-hidden="true">{markOf(cell.state)}</span>{' '}
                            {cell.state === 'dead' && should === 'dead' ? 'off' : STATE_WORDS[cell.state]}
                          </span>
                        ) : (
                          <span className={should === 'dead' ? 'text-soft' : 'font-semibold'}>
                            {should === 'dead' ? 'off' : should === undefined ? '…' : 'should work'}
                          </span>
                        )}
                      </Popover.Trigger>
                      <Popover.Portal>
                        <Popover.Content
                          sideOffset={4}
                          collisionPadding={8}
                          className="z-40 w-64 rounded-lg border-2 border-ink bg-sheet p-2 shadow-lg"
                        >
                          <p className="px-1 pb-1 text-sm text-soft">
                            {one.name} · {condition.name}
                          </p>
                          {CHOICES.map(({ state, mark }) => (
                            <button
                              key={state}
                              type="button"
                              onClick={() => {
                                record({
                                  kind: 'function-check',
                                  function: one.id,
                                  condition: condition.id,
                                  state,
                                });
                                setOpen(null);
                              }}
                              className="flex min-h-11 w-full items-center gap-3 rounded px-2 text-left font-semibold hover:bg-sunk"
                            >
                              <span aria-hidden="true" className="w-5 text-center">
                                {mark}
                              </span>
                              {state === 'dead' && should === 'dead'
                                ? 'off, as it should be'
                                : STATE_WORDS[state]}
                            </button>
                          ))}
                        </Popover.Content>
                      </Popover.Portal>
                    </Popover.Root>
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
