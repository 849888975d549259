'use client';

import { type ReactNode, useMemo, useState } from 'react';
import { concerned, reducedTo } from '#core/change';
import type { CircuitFile } from '#core/format';
import { dialsOf } from '#core/live';
import { PanZoom } from '@/features/panels';
import { Check } from '@/ui/Check';
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

/** Before and after a change, live in one setting, reduced to what the change concerns; what differs bears a word and a sign. */
export function LiveSetting({
  before,
  after,
  at: given,
  deeds,
}: {
  before: CircuitFile;
  after: CircuitFile;
  at: At;
  /** What can be done with a part of the later circuit that is chosen in its drawing. */
  deeds?: (part: string) => ReactNode;
}) {
  const [at, setAt] = useState<At>(given);
  const [seen, setSeen] = useState<'before' | 'after'>('after');
  // Where nothing differs there is nothing to reduce it to.
  const [whole, setWhole] = useState(before === after);
  const wide = useWide();
  const sides = useMemo(() => {
    const marks = {
      before: differing(before, after, '− goes', '± changes'),
      after: differing(after, before, '+ new', '± changed'),
    };
    const touched = [...marks.before.keys(), ...marks.after.keys(), ...Object.keys(given)];
    return {
      before: { circuit: before, drawn: reducedTo(before, concerned(before, touched)), marks: marks.before },
      after: { circuit: after, drawn: reducedTo(after, concerned(after, touched)), marks: marks.after },
    };
  }, [before, after, given]);
  const dials = useMemo(() => {
    const { circuit, drawn } = sides.after;
    const shown = whole ? circuit : drawn;
    const known = new Set(shown.parts.map(({ id }) => id));
    const gone = sides.before.drawn.parts.filter((part) => part.kind === 'switch' && !known.has(part.id));
    return { ...shown, parts: [...shown.parts, ...gone] };
  }, [sides, whole]);
  const side = (which: 'before' | 'after') => (
    <OneSide
      title={which === 'before' ? 'Before' : 'After'}
      circuit={sides[which].circuit}
      drawn={whole ? sides[which].circuit : sides[which].drawn}
      marks={sides[which].marks}
      at={at}
      deeds={which === 'after' ? deeds : undefined}
    />
  );
  return (
    <div>
      <div className="lg:[&>div]:grid lg:[&>div]:grid-cols-2 lg:[&>div]:gap-x-6 lg:[&>div]:space-y-0">
        <Dials circuit={dials} at={at} onTurn={(dial, position) => setAt({ ...at, [dial]: position })} />
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {wide || before === after ? null : (
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
        )}
        <Check checked={whole} onChange={setWhole}>
          all of the circuit, not only what the change concerns
        </Check>
      </div>
      <div className="mt-3 grid gap-4 lg:grid-cols-2">
        {before !== after && (wide || seen === 'before') ? side('before') : null}
        {before === after || wide || seen === 'after' ? side('after') : null}
      </div>
    </div>
  );
}

function OneSide({
  title,
  circuit,
  drawn,
  marks,
  at,
  deeds,
}: {
  title: 'Before' | 'After';
  circuit: CircuitFile;
  drawn: CircuitFile;
  marks: ReadonlyMap<string, string>;
  at: At;
  deeds: ((part: string) => ReactNode) | undefined;
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
  const { diagram, problem: undrawn } = useDiagram(drawn);
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
      {selected && deeds && circuit.parts.some(({ id }) => id === selected) ? (
        <section aria-label="The chosen part" className="mt-2 border-l-4 border-copper pl-3">
          <p className="font-semibold">{circuit.parts.find(({ id }) => id === selected)?.name}</p>
          {deeds(selected)}
        </section>
      ) : null}
      <ul className="mt-2 text-sm" aria-label={`${title}: what differs`}>
        {[...marks].map(([id, word]) => (
          <li key={id}>
            <strong>{word}</strong> {circuit.parts.find((part) => part.id === id)?.name ?? id}
          </li>
        ))}
      </ul>
      <Functions circuit={drawn} state={state} />
    </section>
  );
}
