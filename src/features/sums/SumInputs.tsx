'use client';

import { type Field, type Sum, standsIn, type Worked } from '#core/sizing';
import { Choice } from '@/ui/Choice';
import { INPUT } from '@/ui/controls';
import { Select } from '@/ui/Select';

/** More choices than this come as a list. */
const MOST_BUTTONS = 5;

/** The inputs of a sum: read while they are typed, each with a typical value beside it. */
export function SumInputs({
  sum,
  typed,
  worked,
  onType,
}: {
  sum: Sum;
  typed: Readonly<Record<string, string>>;
  worked: Worked;
  onType: (field: string, text: string) => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2.5">
      {Object.entries(sum.fields).map(([id, field]) => (
        <Input
          key={`${sum.id} ${id}`}
          id={`sum-${id}`}
          field={field}
          text={standsIn(field, typed[id])}
          problem={worked.problems[id] ?? null}
          onType={(text) => onType(id, text)}
        />
      ))}
    </div>
  );
}

function Input({
  id,
  field,
  text,
  problem,
  onType,
}: {
  id: string;
  field: Field<unknown>;
  text: string;
  problem: string | null;
  onType: (text: string) => void;
}) {
  if (field.options && field.options.length <= MOST_BUTTONS) {
    return (
      <div className="col-span-2">
        <Choice legend={field.name} shape="line" options={field.options} chosen={text} onChoose={onType} />
      </div>
    );
  }
  const says = `${id}-says`;
  const shared = {
    id,
    value: text,
    'aria-describedby': says,
    'aria-invalid': problem !== null,
  };
  const wide = field.lines || problem !== null;
  return (
    <div className={wide ? 'col-span-2' : ''}>
      <label htmlFor={id} className="mb-0.5 block text-sm font-semibold">
        {field.name}
        {field.unit ? <span className="font-normal text-soft"> · {field.unit}</span> : null}
      </label>
      {field.options ? (
        <Select {...shared} onChange={(event) => onType(event.target.value)}>
          {field.options.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
      ) : field.lines ? (
        <textarea
          {...shared}
          rows={4}
          onChange={(event) => onType(event.target.value)}
          className={`${INPUT} reading aria-[invalid=true]:border-bad`}
        />
      ) : (
        <input
          {...shared}
          autoComplete="off"
          onChange={(event) => onType(event.target.value)}
          {...(field.digits ? { inputMode: 'decimal' as const } : {})}
          className={`${INPUT} reading aria-[invalid=true]:border-bad`}
        />
      )}
      <p id={says} className={`mt-0.5 text-sm ${problem ? 'font-semibold text-bad' : 'text-soft'}`}>
        {problem ?? field.typical}
      </p>
    </div>
  );
}
