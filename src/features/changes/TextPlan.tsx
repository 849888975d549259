'use client';

import { useEffect, useMemo, useState } from 'react';
import { rewriteEdit } from '#core/change';
import type { CircuitFile, PlanEdit } from '#core/format';
import { useReadText } from '@/features/circuits';
import { Button, Problem } from '@/ui/controls';
import { LiveField } from '@/ui/LiveField';
import { newId } from '@/ui/newId';

/** The circuit as the plan makes it, as text: what is written there becomes an edit of the plan. */
export function TextPlan({
  circuit: joined,
  onEdit,
}: {
  circuit: CircuitFile;
  onEdit: (edit: PlanEdit) => void;
}) {
  // Several circuits joined bear a name that no file may have.
  const circuit = useMemo(() => ({ ...joined, id: 'vehicle', name: joined.name.slice(0, 160) }), [joined]);
  const [written, setWritten] = useState<string | null>(null);
  const [own, setOwn] = useState('');
  useEffect(() => {
    let gone = false;
    void import('#core/notation').then(({ writeNotation }) => {
      if (!gone) setOwn(writeNotation(circuit, { everything: false }));
    });
    return () => {
      gone = true;
    };
  }, [circuit]);
  const text = written ?? own;
  const read = useReadText(text, circuit);
  const isRead = read.of === text && text !== '';
  const made =
    isRead && read.circuit && written !== null ? rewriteEdit(circuit, read.circuit, `text-${newId()}`) : null;
  return (
    <div className="mt-2">
      <LiveField
        name="The circuit, as the plan makes it"
        says="a line a run, from battery to earth; what you change here becomes one edit"
        rows={14}
        value={text}
        onType={setWritten}
      />
      {isRead && read.problems.length > 0 ? (
        <Problem>
          {read.problems
            .slice(0, 3)
            .map(({ message }) => message)
            .join(' ')}
        </Problem>
      ) : null}
      {made && 'words' in made ? <p className="mt-1">{made.words}</p> : null}
      <Button
        className="mt-2"
        disabled={!made}
        onClick={() => {
          if (!made) return;
          setWritten(null);
          onEdit(made);
        }}
      >
        Into the plan
      </Button>
    </div>
  );
}
