'use client';

import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { conditionSettings } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { cellKey } from '#core/log';
import { useDescribed, useJob } from '@/job/JobProvider';
import { FunctionRow, SeenCell } from '@/job/SeenCell';
import { Button } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { SetSign } from '@/ui/SetSign';
import { SideScroll } from '@/ui/SideScroll';
import { useSwipe } from '@/ui/useSwipe';
import { useWide } from '@/ui/useWide';

/** What each function should do in each setting of key and switches, and what was seen of it. */
export function FunctionGrid() {
  const { circuit, job, nominalVolts } = useJob();
  const { described, failure } = useDescribed();
  const wide = useWide();
  const [known, setKnown] = useState(false);
  if (!circuit) return null;
  const { expected = {}, partsOfFunction = {} } = described ?? {};
  const { functions, conditions } = mostToldFirst(
    circuit,
    job.complaint?.function,
    expected,
    partsOfFunction,
  );
  const grid = { functions, conditions, expected };
  // Until it is known which row comes first there is room for all of them and none that moves.
  // Known once it stays: a circuit that is worked out anew takes nobody back to the first setting.
  if (!known && (described !== null || failure !== null || nominalVolts === null)) {
    setKnown(true);
  }
  return (
    <div key={String(known)} className={known ? '' : 'invisible'}>
      {wide ? <Grid {...grid} /> : <OneCondition circuit={circuit} {...grid} />}
    </div>
  );
}

interface Shown {
  readonly functions: CircuitFile['functions'];
  readonly conditions: CircuitFile['conditions'];
  readonly expected: Readonly<Record<string, 'works' | 'weak' | 'dead'>>;
}

/**
 * What failed comes first, then what shares the most parts with it, whose working clears the most; of the settings those
 * in which what failed should work.
 */
function mostToldFirst(
  circuit: CircuitFile,
  failing: string | undefined,
  expected: Shown['expected'],
  partsOf: Readonly<Record<string, readonly string[]>>,
): Pick<Shown, 'functions' | 'conditions'> {
  const own = new Set(partsOf[failing ?? ''] ?? []);
  const shared = (id: string) =>
    id === failing ? Number.POSITIVE_INFINITY : (partsOf[id] ?? []).filter((part) => own.has(part)).length;
  const meant = (id: string) => Number(failing !== undefined && expected[cellKey(failing, id)] === 'works');
  return {
    functions: circuit.functions.toSorted((one, other) =>
      one.id === failing ? -1 : other.id === failing ? 1 : shared(other.id) - shared(one.id),
    ),
    conditions: circuit.conditions.toSorted((one, other) => meant(other.id) - meant(one.id)),
  };
}

/** In the hand: one setting at a time, left and right by a swipe, each function answered in its row. */
function OneCondition({ circuit, functions, conditions, expected }: Shown & { circuit: CircuitFile }) {
  const { job, record } = useJob();
  const [at, setAt] = useState(0);
  const index = Math.min(at, conditions.length - 1);
  const condition = conditions[index];
  const go = (by: number) => setAt(Math.max(0, Math.min(conditions.length - 1, index + by)));
  const bind = useSwipe((towards) => go(-towards));
  if (!condition) return null;
  const rowOf = (one: Shown['functions'][number]) => {
    const key = cellKey(one.id, condition.id);
    return (
      <FunctionRow
        key={key}
        name={one.name}
        should={expected[key]}
        seen={job.checks.get(key)?.state}
        complaint={job.complaint?.function === one.id && job.complaint.condition === condition.id}
        onSay={(state) =>
          record({ kind: 'function-check', function: one.id, condition: condition.id, state })
        }
      />
    );
  };
  const off = functions.filter(({ id }) => expected[cellKey(id, condition.id)] === 'dead');
  const on = functions.filter((one) => !off.includes(one));
  return (
    <section aria-label="Function check" data-testid="function-grid" {...bind()} className="touch-pan-y">
      <div className="flex items-center gap-1">
        <Button aria-label="Setting before" disabled={index === 0} onClick={() => go(-1)}>
          <ChevronLeft aria-hidden="true" className="size-5" />
        </Button>
        <p className="min-w-0 flex-1 text-center leading-tight" aria-live="polite">
          <strong className="block">{condition.name}</strong>
          <span className="text-sm text-soft">
            {index + 1} of {conditions.length}
          </span>
        </p>
        <Button aria-label="Setting after" disabled={index === conditions.length - 1} onClick={() => go(1)}>
          <ChevronRight aria-hidden="true" className="size-5" />
        </Button>
      </div>
      <ul aria-label="Set" className="mt-2 flex flex-wrap gap-1 text-[0.95rem]">
        {conditionSettings(circuit, condition.id).map((setting) => (
          <SetSign key={setting.words} setting={setting} anew={false} />
        ))}
      </ul>
      <ul className="mt-1 divide-y divide-line">{on.map(rowOf)}</ul>
      {off.length > 0 ? (
        <Fold title={`Expected off here: ${off.length}`} className="mt-1">
          <ul className="divide-y divide-line">{off.map(rowOf)}</ul>
        </Fold>
      ) : null}
    </section>
  );
}

function Grid({ functions, conditions, expected }: Shown) {
  const { job, record } = useJob();
  return (
    <SideScroll label="Function check, all settings">
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
    </SideScroll>
  );
}
