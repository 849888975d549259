'use client';

import { BOUNDS, type CircuitFile } from '#core/format';
import { readNumber } from '#core/quantity';
import type { Alike } from '#core/repair';
import { type KeptForm, textOf } from '@/sync/useKeptForm';
import { Field, INPUT } from '@/ui/controls';
import { Select } from '@/ui/Select';
import type { RepairWords } from './RepairSection';

/** Which fuse was fitted, and what it is against the one of the design, said while it is typed. */
export function FuseFitted({
  circuit,
  form,
  judge,
}: {
  circuit: CircuitFile;
  form: KeptForm<RepairWords>;
  judge: (fuse: string, ratingAmps: number) => Alike | null;
}) {
  const [fuse, amps, temporary] = form.watch(['fuse', 'fuseAmps', 'temporary']);
  const read = readNumber(textOf(amps), BOUNDS.fuseRating);
  const alike = textOf(fuse) !== '' && read.ok ? judge(fuse, read.value) : null;
  const wrong = alike !== null && !alike.repair && alike.verdict !== 'open';
  return (
    <div className="grid gap-3 sm:col-span-2 sm:grid-cols-2" data-testid="fuse-fitted">
      <Field label="A fuse was fitted">
        <Select {...form.register('fuse')}>
          <option value="">no fuse</option>
          {circuit.parts.map((part) =>
            part.kind === 'fuse' ? (
              <option key={part.id} value={part.id}>
                {part.name}
              </option>
            ) : null,
          )}
        </Select>
      </Field>
      {fuse ? (
        <Field label="Its rating, A">
          <input {...form.register('fuseAmps')} inputMode="decimal" className={INPUT} />
        </Field>
      ) : null}
      {alike ? (
        <p
          role="status"
          className={`sm:col-span-2 ${wrong ? 'border-l-4 border-caution bg-caution-wash px-3 py-2' : ''}`}
        >
          {alike.verdict === 'alike' ? (
            <span className="text-good">✓ As the map has it.</span>
          ) : (
            <>
              {wrong ? '▲ ' : ''}
              {alike.because.join('; ')}.
              {alike.percentOfWire === null
                ? ''
                : ` ${alike.percentOfWire} % of what the thinnest wire behind it carries.`}
              {wrong ? ' No repair; with a reason a temporary part.' : ''}
            </>
          )}
        </p>
      ) : null}
      {wrong && temporary ? (
        <div className="sm:col-span-2">
          <Field label="Why it was fitted all the same">
            <input {...form.register('reason')} className={INPUT} />
          </Field>
        </div>
      ) : null}
    </div>
  );
}
