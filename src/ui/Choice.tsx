'use client';

import { ToggleGroup } from 'radix-ui';
import { type ReactNode, useId } from 'react';

export interface Option {
  readonly id: string;
  readonly name: string;
  /** A short sentence under the name. */
  readonly says?: string;
  /** Drawn before the name. */
  readonly drawn?: ReactNode;
}

const SHAPES = {
  row: 'flex gap-1 overflow-x-auto pb-1',
  wrap: 'flex flex-wrap gap-2',
  pairs: 'grid gap-2 sm:grid-cols-2',
  line: 'flex flex-wrap gap-1',
} as const;

const ONE =
  'min-h-11 shrink-0 rounded-md border-2 border-line bg-sheet px-3 hover:border-ink data-[state=on]:border-copper data-[state=on]:bg-copper-wash data-[state=on]:font-bold';

function legendClass(shape: keyof typeof SHAPES, quiet: boolean): string {
  if (quiet) return 'sr-only';
  if (shape === 'line') return 'w-36 text-sm leading-tight font-semibold';
  return shape === 'row' ? 'sr-only text-sm font-semibold lg:not-sr-only' : 'mb-1 font-semibold';
}

/**
 * One of several, as buttons: in a row that scrolls, in rows that wrap, two beside each other with a
 * sentence each, or in one line behind the legend.
 * Arrow keys go from one to the next; only a tap, Enter or the space bar chooses.
 */
export function Choice({
  legend,
  options,
  chosen,
  onChoose,
  shape = 'wrap',
  quiet = false,
}: {
  legend: string;
  options: readonly Option[];
  chosen: string | null;
  onChoose: (id: string) => void;
  shape?: keyof typeof SHAPES;
  /** The legend is for those who cannot see the buttons; on a wide screen with `row` it shows. */
  quiet?: boolean;
}) {
  const id = useId();
  return (
    <div className={`min-w-0 ${shape === 'line' ? 'flex flex-wrap items-center gap-x-2' : ''}`}>
      <p id={id} className={legendClass(shape, quiet)}>
        {legend}
      </p>
      <ToggleGroup.Root
        type="single"
        role="radiogroup"
        aria-labelledby={id}
        value={chosen ?? ''}
        // What is chosen already stays chosen: a second tap takes nothing away.
        onValueChange={(next) => onChoose(next === '' ? (chosen ?? '') : next)}
        className={SHAPES[shape]}
      >
        {options.map((one) => (
          <ToggleGroup.Item
            key={one.id}
            value={one.id}
            className={`${ONE} ${one.says || one.drawn ? 'py-1.5 text-left' : ''}`}
          >
            {one.drawn}
            <span className={one.says ? 'font-bold' : ''}>{one.name}</span>
            {one.says ? <span className="block text-sm font-normal text-soft">{one.says}</span> : null}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </div>
  );
}

/** Any number of several, as buttons that stay pressed. */
export function Several({
  legend,
  options,
  chosen,
  onChoose,
}: {
  legend: string;
  options: readonly Option[];
  chosen: readonly string[];
  onChoose: (ids: string[]) => void;
}) {
  const id = useId();
  return (
    <div className="min-w-0">
      <p id={id} className={legendClass('wrap', false)}>
        {legend}
      </p>
      <ToggleGroup.Root
        type="multiple"
        aria-labelledby={id}
        value={[...chosen]}
        onValueChange={onChoose}
        className={SHAPES.wrap}
      >
        {options.map((one) => (
          <ToggleGroup.Item key={one.id} value={one.id} className={ONE}>
            {one.name}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </div>
  );
}
