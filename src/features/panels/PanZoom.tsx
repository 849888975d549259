'use client';

import { useGesture } from '@use-gesture/react';
import { type ReactNode, useRef, useState } from 'react';
import { Button } from '@/ui/controls';

const MOST = 6;
/** Two fingers that turn by less mean to enlarge, degrees. */
const TWIST = 30;

/** How far an arrow key moves what is enlarged, px. */
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [60, 0],
  ArrowRight: [-60, 0],
  ArrowUp: [0, 60],
  ArrowDown: [0, -60],
};

interface View {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

const WHOLE: View = { x: 0, y: 0, scale: 1 };

/** The place under `at` (of the frame, pixels) stays where it is. */
function zoomed(before: View, wanted: number, atX: number, atY: number): View {
  const scale = Math.min(MOST, Math.max(1, wanted));
  if (scale === 1) return WHOLE;
  const grown = scale / before.scale;
  return { scale, x: atX - (atX - before.x) * grown, y: atY - (atY - before.y) * grown };
}

/** Moves and enlarges what is inside by drag, pinch, wheel, keys and buttons; a tap still reaches what lies under it. */
export function PanZoom({
  children,
  onTwist,
  wheel = false,
}: {
  children: ReactNode;
  /** The wheel enlarges without a key held; once the whole is seen, it scrolls the page again. */
  wheel?: boolean;
  /** Two fingers turned it, by so many quarters clockwise. */
  onTwist?: (quarters: number) => void;
}) {
  const [view, setView] = useState<View>(WHOLE);
  const frame = useRef<HTMLDivElement>(null);
  const enlarged = view.scale > 1;
  useGesture(
    {
      onDrag: ({ delta: [dx, dy], pinching, cancel }) => {
        if (pinching) cancel();
        else
          setView((before) =>
            before.scale > 1 ? { ...before, x: before.x + dx, y: before.y + dy } : before,
          );
      },
      onWheel: ({ event, direction: [, down] }) => {
        if (!wheel || event.ctrlKey || down === 0 || (down > 0 && !enlarged)) return;
        event.preventDefault();
        const box = frame.current!.getBoundingClientRect();
        setView((before) =>
          zoomed(
            before,
            before.scale * (down > 0 ? 1 / 1.15 : 1.15),
            event.clientX - box.left,
            event.clientY - box.top,
          ),
        );
      },
      // Two fingers, and the wheel with the Ctrl key.
      onPinch: ({ offset: [scale], origin: [x, y], movement: [, angle], last }) => {
        if (last && Math.abs(angle) >= TWIST)
          onTwist?.(Math.max(1, Math.round(Math.abs(angle) / 90)) * Math.sign(angle));
        const box = frame.current!.getBoundingClientRect();
        setView((before) => zoomed(before, scale, x - box.left, y - box.top));
      },
    },
    {
      target: frame,
      // The page must not grow with the box.
      eventOptions: { passive: false },
      // What was dragged is not pressed.
      drag: { enabled: enlarged, filterTaps: true },
      pinch: { scaleBounds: { min: 1, max: MOST }, from: () => [view.scale, 0] },
    },
  );
  const middle = (factor: number) => {
    const box = frame.current!.getBoundingClientRect();
    setView((before) => zoomed(before, before.scale * factor, box.width / 2, box.height / 2));
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys of the buttons below, wherever the focus is inside
    <div
      onKeyDown={(event) => {
        if (event.target instanceof HTMLElement && event.target.closest('input, select, textarea')) return;
        const arrow = ARROWS[event.key];
        if (event.key === '+') middle(1.5);
        else if (event.key === '-') middle(1 / 1.5);
        else if (arrow && enlarged) {
          event.preventDefault();
          setView((before) => ({ ...before, x: before.x + arrow[0], y: before.y + arrow[1] }));
        }
      }}
    >
      <div
        ref={frame}
        className={`overflow-hidden ${enlarged ? 'touch-none' : 'touch-pan-x touch-pan-y'}`}
        data-testid="pan-zoom"
      >
        <div
          style={{
            transform: `translate(${view.x}px, ${view.y}px) scale(${view.scale})`,
            transformOrigin: '0 0',
            willChange: enlarged ? 'transform' : undefined,
          }}
        >
          {children}
        </div>
      </div>
      <div className="mt-1 flex gap-2">
        <Button onClick={() => middle(1.5)} aria-label="Larger">
          +
        </Button>
        <Button onClick={() => middle(1 / 1.5)} aria-label="Smaller" disabled={!enlarged}>
          −
        </Button>
        {enlarged ? <Button onClick={() => setView(WHOLE)}>Whole</Button> : null}
      </div>
    </div>
  );
}
