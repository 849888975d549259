'use client';

import { useMemo, useState } from 'react';
import type { CircuitFile } from '#core/format';
import { dialsOf } from '#core/live';
import { PanZoom } from '@/features/panels';
import { Choice } from '@/ui/Choice';
import { Problem } from '@/ui/controls';
import { useWide } from '@/ui/useWide';
import { useAnswer, useCircuitWorker } from '@/workers/useCircuitWorker';
import { CircuitDrawing, liveMarks } from './CircuitDrawing';
import { Alarms, Dials, dialled, Functions } from './LivePanel';
import { useDiagram } from './useDiagram';

type At = Readonly<Record<string, string>>;

/** What differs between two circuits, part by part, in a word. */
function differing(
  one: CircuitFile,
  other: CircuitFile,
  goes: string,
  differs: string,
): ReadonlyMap<string, string> {
  const there = new Map(other.parts.map((part) => [part.id, JSON.stringify(part)]));
  return new Map(
    one.parts.flatMap((part): [string, string][] => {
      const same = there.get(part.id);
      return same === undefined
        ? [[part.id, goes]]
        : same === JSON.stringify(part)
          ? []
          : [[part.id, differs]];
    }),
  );
}

/** A circuit before and after a change, live in one setting, what differs marked by a word and a sign. */
export function LiveSetting({
  before,
  after,
  at: given,
}: {
  before: CircuitFile;
  after: CircuitFile;
  at: At;
}) {
  const [at, setAt] = useState<At>(given);
  const [seen, setSeen] = useState<'before' | 'after'>('after');
  const wide = useWide();
  const union = useMemo(() => {
    const known = new Set(after.parts.map(({ id }) => id));
    return {
      ...after,
      parts: [
        ...after.parts,
        ...before.parts.filter((part) => part.kind === 'switch' && !known.has(part.id)),
      ],
    };
  }, [before, after]);
  return (
    <div>
      <Dials circuit={union} at={at} onTurn={(dial, position) => setAt({ ...at, [dial]: position })} />
      {wide ? null : (
        <div className="mt-2">
          <Choice
            legend="Seen"
            quiet
            options={[
              { id: 'before', name: 'Before' },
              { id: 'after', name: 'After' },
            ]}
            chosen={seen}
            onChoose={(id) => setSeen(id as 'before' | 'after')}
          />
        </div>
      )}
      <div className="mt-3 grid gap-4 lg:grid-cols-2">
        {wide || seen === 'before' ? <OneSide title="Before" circuit={before} other={after} at={at} /> : null}
        {wide || seen === 'after' ? <OneSide title="After" circuit={after} other={before} at={at} /> : null}
      </div>
    </div>
  );
}

function OneSide({
  title,
  circuit,
  other,
  at,
}: {
  title: 'Before' | 'After';
  circuit: CircuitFile;
  other: CircuitFile;
  at: At;
}) {
  const ask = useCircuitWorker(circuit);
  const [selected, setSelected] = useState<string | null>(null);
  const question = useMemo(() => {
    const own = new Set(dialsOf(circuit).map(({ id }) => id));
    const here = Object.fromEntries(Object.entries(at).filter(([id]) => own.has(id)));
    return {
      ask: 'live' as const,
      setting: { condition: dialled(circuit, here), faults: [], done: [], fusesOpen: false },
    };
  }, [circuit, at]);
  const { answer: state, problem } = useAnswer(ask, question);
  const { diagram, problem: undrawn } = useDiagram(circuit);
  const marks = useMemo(
    () =>
      title === 'Before'
        ? differing(circuit, other, '− goes', '± changes')
        : differing(circuit, other, '+ new', '± changed'),
    [circuit, other, title],
  );
  const live = state ? liveMarks(state, marks, circuit.nominalVolts, new Set(), circuit.reference) : null;
  return (
    <section aria-label={title} className="min-w-0">
      <h3 className="text-lg font-bold">{title}</h3>
      {undrawn || problem ? <Problem>{undrawn ?? problem}</Problem> : null}
      {state ? <Alarms circuit={circuit} state={state} /> : null}
      {diagram ? (
        <PanZoom wheel>
          <CircuitDrawing
            diagram={diagram}
            title={title}
            selected={selected}
            live={live}
            onSelect={setSelected}
          />
        </PanZoom>
      ) : (
        <p className="min-h-40 py-6 text-soft">Drawing …</p>
      )}
      <ul className="mt-2 text-sm" aria-label={`${title}: what differs`}>
        {[...marks].map(([id, word]) => (
          <li key={id}>
            <strong>{word}</strong> {circuit.parts.find((part) => part.id === id)?.name ?? id}
          </li>
        ))}
      </ul>
      <Functions circuit={circuit} state={state} />
    </section>
  );
}
