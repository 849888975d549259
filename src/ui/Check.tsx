'use client';

import { Check as Tick } from 'lucide-react';
import { Checkbox, Switch } from 'radix-ui';
import { type ReactNode, useId } from 'react';
import { type Control, type FieldPath, type FieldValues, useController } from 'react-hook-form';

/** Something that is so or not, said by a tap on its words. */
export function Check({
  checked,
  onChange,
  children,
  boxed = false,
  className = '',
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  children: ReactNode;
  /** With a border around box and words, for several in a row. */
  boxed?: boolean;
  className?: string;
}) {
  const id = useId();
  return (
    <div
      className={`flex min-h-11 items-center gap-3 ${
        boxed
          ? 'rounded-md border-2 border-line bg-sheet px-3 has-data-[state=checked]:border-copper has-data-[state=checked]:bg-copper-wash'
          : ''
      } ${className}`}
    >
      <Checkbox.Root
        id={id}
        checked={checked}
        onCheckedChange={(next) => onChange(next === true)}
        className="group -mx-2 grid size-11 shrink-0 place-items-center rounded"
      >
        <span className="grid size-7 place-items-center rounded border-2 border-ink bg-sheet group-data-[state=checked]:border-copper group-data-[state=checked]:bg-copper">
          <Checkbox.Indicator>
            <Tick aria-hidden="true" className="size-5 text-on-copper" strokeWidth={3} />
          </Checkbox.Indicator>
        </span>
      </Checkbox.Root>
      <label htmlFor={id} className="flex min-h-11 flex-1 items-center py-1">
        <span>{children}</span>
      </label>
    </div>
  );
}

/** The same as a field of a form. */
export function CheckField<Values extends FieldValues>({
  control,
  name,
  children,
}: {
  control: Control<Values>;
  name: FieldPath<Values>;
  children: ReactNode;
}) {
  const { field } = useController({ control, name });
  return (
    <Check checked={field.value === true} onChange={field.onChange}>
      {children}
    </Check>
  );
}

/** A setting that holds from now on. */
export function Setting({
  on,
  onChange,
  children,
}: {
  on: boolean;
  onChange: (on: boolean) => void;
  children: ReactNode;
}) {
  const id = useId();
  return (
    <div className="flex min-h-12 items-center gap-3">
      <label htmlFor={id} className="flex-1">
        {children}
      </label>
      <Switch.Root
        id={id}
        checked={on}
        onCheckedChange={onChange}
        className="h-8 w-14 shrink-0 rounded-full border-2 border-ink bg-sheet data-[state=checked]:border-copper data-[state=checked]:bg-copper"
      >
        <Switch.Thumb className="block size-5 translate-x-1 rounded-full bg-ink transition-transform duration-100 data-[state=checked]:translate-x-7 data-[state=checked]:bg-on-copper" />
      </Switch.Root>
    </div>
  );
}
