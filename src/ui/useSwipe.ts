'use client';

import { useDrag } from '@use-gesture/react';

/** What has a drag of its own. */
const DRAGGED = '[data-testid="pan-zoom"], input, select, textarea, [role="slider"]';

/** So far a thumb goes in a swipe, px. */
const LEAST_PX = 50;

/**
 * Left and right by a swipe of the thumb: +1 to the right, -1 to the left. A mouse drags and does not swipe. Judged by the
 * whole way and not by its time or last speed, which a hand that halts, or a phone that is busy, makes nothing of.
 */
export function useSwipe(onSwipe: (towards: 1 | -1) => void) {
  return useDrag(
    ({ last, canceled, movement: [x, y], event }) => {
      if (!last || canceled) return;
      // A box that is dragged or a slider that is pulled is not left by it.
      if (event.target instanceof Element && event.target.closest(DRAGGED)) return;
      if (event instanceof PointerEvent && event.pointerType === 'mouse') return;
      if (Math.abs(x) < LEAST_PX || Math.abs(y) > Math.abs(x) / 2) return;
      onSwipe(x > 0 ? 1 : -1);
    },
    { axis: 'x', filterTaps: true, pointer: { capture: false } },
  );
}
