'use client';

export interface Option {
  readonly id: string;
  readonly name: string;
  /** A short sentence under the name. */
  readonly says?: string;
}

/** One of several, as buttons: in a row that scrolls, in rows that wrap, or two beside each other with a sentence each. */
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
  shape?: 'row' | 'wrap' | 'pairs';
  /** The legend is for those who cannot see the buttons; on a wide screen with `row` it shows. */
  quiet?: boolean;
}) {
  const shapes = {
    row: 'flex gap-1 overflow-x-auto pb-1',
    wrap: 'flex flex-wrap gap-2',
    pairs: 'grid gap-2 sm:grid-cols-2',
  } as const;
  return (
    <fieldset className="min-w-0">
      <legend
        className={
          quiet
            ? 'sr-only'
            : shape === 'row'
              ? 'sr-only text-sm font-semibold lg:not-sr-only'
              : 'mb-1 font-semibold'
        }
      >
        {legend}
      </legend>
      <div className={shapes[shape]}>
        {options.map((one) => (
          <button
            key={one.id}
            type="button"
            aria-pressed={one.id === chosen}
            onClick={() => onChoose(one.id)}
            className={`min-h-11 shrink-0 rounded-md border-2 px-3 ${one.says ? 'py-1.5 text-left' : ''} ${
              one.id === chosen ? 'border-copper bg-copper-wash' : 'border-line bg-sheet'
            }`}
          >
            <span className={one.says || one.id === chosen ? 'font-bold' : ''}>{one.name}</span>
            {one.says ? <span className="block text-sm text-soft">{one.says}</span> : null}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
