'use client';

import { useDrag } from '@use-gesture/react';
import type { ReactNode } from 'react';

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

/** What has a drag of its own. */
const DRAGGED = '[data-testid="pan-zoom"], input, select, textarea';

/** The views of the trace: beside each other, or one of them that a swipe of the thumb exchanges for its neighbour. */
export function Panes({
  pane,
  onPane,
  children,
}: {
  pane: Pane;
  onPane: (pane: Pane) => void;
  children: ReactNode;
}) {
  const bind = useDrag(
    ({ swipe: [towards], event }) => {
      // A box that is dragged or a slider that is pulled is not left by it.
      if (event.target instanceof Element && event.target.closest(DRAGGED)) return;
      if (towards === 0 || (event instanceof PointerEvent && event.pointerType === 'mouse')) return;
      const ids = PANES.map(([id]) => id);
      const next = ids[ids.indexOf(pane) - towards];
      if (next) onPane(next);
    },
    { axis: 'x', filterTaps: true, pointer: { capture: false }, swipe: { distance: 50, velocity: 0.2 } },
  );
  return (
    <div
      {...bind()}
      className="grid touch-pan-y touch-pinch-zoom grid-cols-[minmax(0,1fr)] gap-5 lg:touch-auto lg:grid-cols-[22rem_minmax(0,1fr)_17rem]"
    >
      {children}
    </div>
  );
}
