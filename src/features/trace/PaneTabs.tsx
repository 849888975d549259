'use client';

const PANES = [
  ['card', 'Card'],
  ['run', 'Run'],
  ['suspects', 'Suspects'],
] as const;
export type Pane = (typeof PANES)[number][0];

/** On a phone, which of the views of the trace is seen; a wide screen has them beside each other. */
export function PaneTabs({ pane, onPane }: { pane: Pane; onPane: (pane: Pane) => void }) {
  return (
    <div
      role="tablist"
      aria-label="Trace"
      className="sticky top-12 z-20 -mx-2 mb-2 grid grid-cols-3 bg-paper lg:hidden low:static"
    >
      {PANES.map(([id, name]) => (
        <button
          key={id}
          id={`tab-${id}`}
          type="button"
          role="tab"
          aria-selected={pane === id}
          aria-controls={`pane-${id}`}
          onClick={() => onPane(id)}
          className={`h-[44px] border-b-4 font-semibold ${
            pane === id ? 'border-copper' : 'border-line text-soft'
          }`}
        >
          {name}
        </button>
      ))}
    </div>
  );
}
