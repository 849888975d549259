'use client';

import { useDrag } from '@use-gesture/react';

/** What has a drag of its own. */
const DRAGGED = '[data-testid="pan-zoom"], input, select, textarea, [role="slider"]';

/** Left and right by a swipe of the thumb: +1 to the right, -1 to the left. A mouse drags and does not swipe. */
export function useSwipe(onSwipe: (towards: 1 | -1) => void) {
  return useDrag(
    ({ swipe: [towards], event }) => {
      // A box that is dragged or a slider that is pulled is not left by it.
      if (event.target instanceof Element && event.target.closest(DRAGGED)) return;
      if (towards === 0 || (event instanceof PointerEvent && event.pointerType === 'mouse')) return;
      onSwipe(towards > 0 ? 1 : -1);
    },
    {
      axis: 'x',
      filterTaps: true,
      pointer: { capture: false },
      swipe: { distance: 50, velocity: 0.1, duration: 1500 },
    },
  );
}
