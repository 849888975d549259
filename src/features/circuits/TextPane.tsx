'use client';

import { useMemo } from 'react';
import type { CircuitFile, Panel } from '#core/format';
import type { ReadText } from '#core/notation';
import { circuitOfPattern, PATTERNS } from '#core/notation';
import type { Remark } from '#core/safety';
import { Button, INPUT, Problem } from '@/ui/controls';
import { Select } from '@/ui/Select';
import { NotationEditor } from './NotationEditor';
import { SameParts } from './SameParts';
import type { Clashes } from './useClashes';

export function TextPane({
  text,
  changed,
  read,
  reading,
  saved,
  panels,
  others,
  nominalVolts,
  busy,
  problem,
  clashes,
  onText,
  onSave,
}: {
  text: string;
  changed: boolean;
  read: ReadText & { readonly remarks: readonly Remark[]; readonly whole: boolean };
  /** The reading of what stands here now is not there yet. */
  reading: boolean;
  saved: CircuitFile | null;
  panels: readonly Panel[];
  others: readonly CircuitFile[];
  nominalVolts: number | null;
  busy: boolean;
  problem: string | null;
  clashes: Clashes;
  onText: (text: string) => void;
  onSave: () => void;
}) {
  const context = useMemo(() => ({ parts: others.flatMap((one) => one.parts), panels }), [others, panels]);
  return (
    <div className="mt-3">
      {saved ? null : (
        <label className="mb-3 block max-w-md">
          <span className="block text-sm font-semibold">Begin from a pattern</span>
          <Select
            value=""
            onChange={(event) => {
              const pattern = PATTERNS.find((one) => one.id === event.target.value);
              if (!pattern) return;
              const input = {
                load: 'What it feeds',
                kind: 'lamp',
                nominalVolts: nominalVolts ?? 12,
              } as const;
              const { text: made } = circuitOfPattern(pattern, input);
              onText(`${nominalVolts === null ? made.replace(/ 12 V$/m, '') : made}\n`);
            }}
            className={INPUT}
          >
            <option value="">choose …</option>
            {PATTERNS.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
        </label>
      )}
      <NotationEditor text={text} problems={read.problems} context={context} onText={onText} />
      <p className="mt-1 text-sm text-soft">
        One line a branch, from the battery to earth. “fuse F1 10 A”, “wire GN/RD 1.5 mm² 3 m”, “relay R1
        contact”, “from F1, …”, “to L1.minus”. Ctrl+Space suggests.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button
          look="primary"
          disabled={!read.circuit || reading || busy || clashes.open > 0 || (saved !== null && !changed)}
          onClick={onSave}
        >
          {saved ? 'Save as a new version' : 'Save the circuit'}
        </Button>
        <p
          role="status"
          data-testid="text-status"
          className={read.circuit ? 'text-good' : 'font-semibold text-bad'}
        >
          {read.circuit
            ? `✓ ${read.circuit.parts.length} parts, ${read.circuit.functions.length} ${read.circuit.functions.length === 1 ? 'function' : 'functions'}`
            : `✗ ${read.problems.length} ${read.problems.length === 1 ? 'mistake' : 'mistakes'}`}
          {clashes.open > 0
            ? `; say of ${clashes.open} ${clashes.open === 1 ? 'part' : 'parts'} whether it is the same`
            : ''}
          {read.whole ? '' : '; looking what would burn …'}
        </p>
      </div>
      {problem ? <Problem>{problem}</Problem> : null}
      <SameParts clashes={clashes} />
      {read.remarks.length > 0 ? (
        <ul className="mt-2 space-y-1" data-testid="text-remarks" aria-label="Remarks">
          {read.remarks.slice(0, 12).map(({ about, words, mend }) => (
            <li key={`${about} ${words}`} className="border-l-4 border-caution pl-3">
              <strong>{words}</strong> {mend}
            </li>
          ))}
        </ul>
      ) : null}
      {read.problems.length > 0 ? (
        <ol className="mt-2 space-y-1" data-testid="text-problems">
          {read.problems.slice(0, 12).map((one) => (
            <li key={`${one.line} ${one.from} ${one.message}`}>
              <span className="reading font-bold">
                line {one.line}, column {one.from + 1}:
              </span>{' '}
              {one.message}
            </li>
          ))}
        </ol>
      ) : null}
    </div>
  );
}
