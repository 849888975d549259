'use client';

import type { ReactNode } from 'react';
import { TabBar } from '@/ui/Tabs';
import { useSwipe } from '@/ui/useSwipe';

const PANES = [
  { id: 'card', name: 'Card' },
  { id: 'run', name: 'Run' },
  { id: 'suspects', name: 'Suspects' },
] as const;
export type Pane = (typeof PANES)[number]['id'];

/** On a phone, which of the views of the trace is seen; a wide screen has them beside each other. */
export function PaneTabs() {
  return (
    <div className="sticky top-12 z-20 -mx-2 mb-2 lg:hidden low:static">
      <TabBar label="Trace" tabs={PANES} />
    </div>
  );
}

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
  const bind = useSwipe((towards) => {
    const ids = PANES.map(({ id }) => id);
    const next = ids[ids.indexOf(pane) - towards];
    if (next) onPane(next);
  });
  return (
    <div
      {...bind()}
      className="grid touch-pan-y touch-pinch-zoom grid-cols-[minmax(0,1fr)] gap-5 lg:touch-auto lg:grid-cols-[22rem_minmax(0,1fr)_17rem]"
    >
      {children}
    </div>
  );
}
