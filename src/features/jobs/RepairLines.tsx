'use client';

import { useFieldArray } from 'react-hook-form';
import { type CircuitFile, JOINTS, REPAIR_DEEDS } from '#core/format';
import { COMPARED, type ComparedKind, DEED_WORDS, JOINT_WORDS, noRepair, PART_FIELDS } from '#core/repair';
import type { KeptForm } from '@/sync/useKeptForm';
import { Choice } from '@/ui/Choice';
import { Button, Field, INPUT } from '@/ui/controls';
import { Select } from '@/ui/Select';
import { judgedOf, type LineWords, lineOf, NO_LINE, type RepairWords } from './repairEntries';

const upper = (words: string) => `${words[0]!.toUpperCase()}${words.slice(1)}`;
const DEEDS = REPAIR_DEEDS.map((id) => ({ id, name: upper(DEED_WORDS[id]) }));
const METHODS = [{ id: '', name: 'no joint' }, ...JOINTS.map((id) => ({ id, name: JOINT_WORDS[id] }))];
/** Deeds by which conductors are joined. */
const JOINS = new Set(['replaced', 're-terminated', 'spliced', 'bypassed', 'board-repaired']);

/** Which parts were touched, and what was done to each; what was fitted is compared with what belongs there. */
export function RepairLines({ form, circuit }: { form: KeptForm<RepairWords>; circuit: CircuitFile | null }) {
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'lines' });
  return (
    <fieldset className="sm:col-span-2">
      <legend className="mb-1 font-semibold">Part by part</legend>
      {fields.map((field, at) => (
        <Line key={field.id} form={form} circuit={circuit} at={at} onRemove={() => remove(at)} />
      ))}
      <Button onClick={() => append(NO_LINE)}>
        {fields.length === 0 ? 'Which part, and what was done to it' : 'One more part that was touched'}
      </Button>
    </fieldset>
  );
}

function Line({
  form,
  circuit,
  at,
  onRemove,
}: {
  form: KeptForm<RepairWords>;
  circuit: CircuitFile | null;
  at: number;
  onRemove: () => void;
}) {
  const line: LineWords = { ...NO_LINE, ...form.watch(`lines.${at}`) };
  const put = (more: Partial<LineWords>) =>
    form.setValue(`lines.${at}`, { ...line, ...more }, { shouldDirty: true });
  return (
    <div className="mb-3 grid gap-3 rounded-md border-2 border-line p-3" data-testid="repair-line">
      <div className="grid gap-3 sm:grid-cols-2">
        {circuit ? (
          <Field label="Part">
            <Select value={line.part} onChange={(event) => put(lineOf(circuit, event.target.value))}>
              <option value="">not in this map</option>
              {circuit.parts.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Select>
          </Field>
        ) : null}
        {line.part === '' ? (
          <>
            <Field label="Its name">
              <input {...form.register(`lines.${at}.name`)} className={INPUT} />
            </Field>
            <Field label="What it is">
              <Select
                value={line.kind}
                onChange={(event) => put({ kind: event.target.value, wanted: {}, fitted: {} })}
              >
                <option value="">something else</option>
                {COMPARED.map((kind) => (
                  <option key={kind} value={kind}>
                    {kind}
                  </option>
                ))}
              </Select>
            </Field>
          </>
        ) : null}
      </div>
      <Choice
        legend="What was done"
        quiet
        options={DEEDS}
        chosen={line.deed}
        onChoose={(deed) => put({ deed })}
      />
      {line.deed === 'replaced' && line.kind !== '' ? (
        <Compared form={form} at={at} line={line} kind={line.kind as ComparedKind} circuit={circuit} />
      ) : null}
      {line.deed !== '' ? (
        <div className="grid gap-3 sm:grid-cols-2">
          {JOINS.has(line.deed) && line.kind !== 'fuse' && line.kind !== 'lamp' ? (
            <>
              <Field label="How it was joined">
                <Select {...form.register(`lines.${at}.joint`)}>
                  {METHODS.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </Select>
              </Field>
              {line.joint !== '' ? (
                <>
                  <Choice
                    legend="Pulled by hand"
                    options={[
                      { id: 'yes', name: 'It held' },
                      { id: 'no', name: 'It came out' },
                    ]}
                    chosen={line.pulled}
                    onChoose={(pulled) => put({ pulled })}
                  />
                  <Choice
                    legend="Sealed against water"
                    options={[
                      { id: 'yes', name: 'Sealed' },
                      { id: 'no', name: 'Not sealed' },
                    ]}
                    chosen={line.sealed}
                    onChoose={(sealed) => put({ sealed })}
                  />
                </>
              ) : null}
            </>
          ) : null}
          <Field label="Where on the vehicle" hint="May stay empty">
            <input {...form.register(`lines.${at}.place`)} className={INPUT} />
          </Field>
        </div>
      ) : null}
      <div>
        <Button look="quiet" onClick={onRemove}>
          Take this part out
        </Button>
      </div>
    </div>
  );
}

/** What belongs there beside what was fitted, field by field, and the answer while it is typed. */
function Compared({
  form,
  at,
  line,
  kind,
  circuit,
}: {
  form: KeptForm<RepairWords>;
  at: number;
  line: LineWords;
  kind: ComparedKind;
  circuit: CircuitFile | null;
}) {
  const alike = judgedOf(line, circuit);
  const wrong = noRepair(alike);
  const cell = (side: 'wanted' | 'fitted', field: (typeof PART_FIELDS)[ComparedKind][number]) => {
    const name = `lines.${at}.${side}.${field.id}` as const;
    const label = `${field.name}${field.unit ? `, ${field.unit}` : ''}, ${side === 'wanted' ? 'belongs there' : 'fitted'}`;
    return field.options ? (
      <Select {...form.register(name)} aria-label={label}>
        <option value="">not known</option>
        {field.options.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Select>
    ) : (
      <input
        {...form.register(name)}
        aria-label={label}
        inputMode={field.range && !field.span ? 'decimal' : 'text'}
        className={INPUT}
      />
    );
  };
  return (
    <div data-testid="compared">
      <div className="grid grid-cols-[minmax(5rem,auto)_1fr_1fr] items-center gap-x-2 gap-y-1">
        <span />
        <span className="text-sm font-semibold">Belongs there</span>
        <span className="text-sm font-semibold">Fitted</span>
        {PART_FIELDS[kind].map((field) => (
          <div key={field.id} className="contents">
            <span className="text-sm leading-tight">
              {field.name}
              {field.unit ? <span className="text-soft"> {field.unit}</span> : null}
            </span>
            {cell('wanted', field)}
            {field.ofPlace ? <span /> : cell('fitted', field)}
          </div>
        ))}
      </div>
      <div className="mt-2">
        <Button
          onClick={() => form.setValue(`lines.${at}.fitted`, { ...line.wanted }, { shouldDirty: true })}
        >
          The same was fitted
        </Button>
      </div>
      {alike ? (
        <p
          role="status"
          className={`mt-2 ${wrong ? 'border-l-4 border-caution bg-caution-wash px-3 py-2' : ''}`}
        >
          {alike.verdict === 'alike' ? (
            <span className="text-good">✓ Like for like.</span>
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
    </div>
  );
}
