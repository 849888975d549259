'use client';

import { type Field, type Sum, standsIn, type Worked } from '#core/sizing';
import { Choice } from '@/ui/Choice';
import { LiveField } from '@/ui/LiveField';
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
  const { name, unit, typical: says, lines, digits: decimal, options } = field;
  return (
    <LiveField
      {...{ id, name, unit, says, problem, decimal, onType }}
      value={text}
      rows={lines ? 4 : undefined}
    >
      {options
        ? (shared) => (
            <Select {...shared} value={text} onChange={(event) => onType(event.target.value)}>
              {options.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </Select>
          )
        : undefined}
    </LiveField>
  );
}
