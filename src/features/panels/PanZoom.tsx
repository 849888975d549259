'use client';

import { type PointerEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { Button } from '@/ui/controls';

const MOST = 6;
/** A pointer that moves less than this has tapped, pixels. */
const TAP = 6;

interface View {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

const WHOLE: View = { x: 0, y: 0, scale: 1 };

/** Moves and enlarges what is inside by drag, pinch, wheel and buttons; a tap still reaches what lies under it. */
export function PanZoom({
  children,
  scrolls = false,
}: {
  children: ReactNode;
  /** What is inside may be wider than the page, and is scrolled as long as it is not enlarged. */
  scrolls?: boolean;
}) {
  const [view, setView] = useState<View>(WHOLE);
  const frame = useRef<HTMLDivElement>(null);
  const pointers = useRef(new Map<number, { x: number; y: number }>());
  const moved = useRef(0);

  const zoom = (factor: number, atX: number, atY: number) =>
    setView((before) => {
      const scale = Math.min(MOST, Math.max(1, before.scale * factor));
      if (scale === 1) return WHOLE;
      const grown = scale / before.scale;
      return { scale, x: atX - (atX - before.x) * grown, y: atY - (atY - before.y) * grown };
    });
  const zoomRef = useRef(zoom);
  zoomRef.current = zoom;

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    // The page must not scroll while the box is enlarged by the wheel; React's own listener could not stop it.
    const wheel = (event: WheelEvent) => {
      if (!event.ctrlKey) return;
      event.preventDefault();
      const box = element.getBoundingClientRect();
      zoomRef.current(event.deltaY < 0 ? 1.2 : 1 / 1.2, event.clientX - box.left, event.clientY - box.top);
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, []);

  const down = (event: PointerEvent) => {
    pointers.current.set(event.pointerId, { x: event.clientX, y: event.clientY });
    if (pointers.current.size === 1) moved.current = 0;
  };
  const move = (event: PointerEvent) => {
    const before = pointers.current.get(event.pointerId);
    if (!before) return;
    const others = [...pointers.current].filter(([id]) => id !== event.pointerId);
    pointers.current.set(event.pointerId, { x: event.clientX, y: event.clientY });
    const dx = event.clientX - before.x;
    const dy = event.clientY - before.y;
    moved.current += Math.abs(dx) + Math.abs(dy);
    const [other] = others;
    if (other) {
      const box = frame.current!.getBoundingClientRect();
      const was = Math.hypot(before.x - other[1].x, before.y - other[1].y);
      const is = Math.hypot(event.clientX - other[1].x, event.clientY - other[1].y);
      const middleX = (event.clientX + other[1].x) / 2 - box.left;
      const middleY = (event.clientY + other[1].y) / 2 - box.top;
      if (was > 0) zoom(is / was, middleX, middleY);
    } else if (view.scale > 1) {
      setView((now) => ({ ...now, x: now.x + dx, y: now.y + dy }));
    }
  };
  const up = (event: PointerEvent) => {
    pointers.current.delete(event.pointerId);
  };
  const middle = (factor: number) => {
    const box = frame.current!.getBoundingClientRect();
    zoom(factor, box.width / 2, box.height / 2);
  };
  return (
    <div>
      <div
        ref={frame}
        className={`${scrolls && view.scale === 1 ? 'overflow-x-auto' : 'overflow-hidden'} ${view.scale > 1 ? 'touch-none' : ''}`}
        data-testid="pan-zoom"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={up}
        onPointerLeave={up}
        onClickCapture={(event) => {
          // What was dragged is not pressed.
          if (moved.current > TAP) event.stopPropagation();
        }}
      >
        <div
          style={{
            transform: `translate(${view.x}px, ${view.y}px) scale(${view.scale})`,
            transformOrigin: '0 0',
            willChange: view.scale > 1 ? 'transform' : undefined,
          }}
        >
          {children}
        </div>
      </div>
      <div className="mt-1 flex gap-2">
        <Button onClick={() => middle(1.5)} aria-label="Larger">
          +
        </Button>
        <Button onClick={() => middle(1 / 1.5)} aria-label="Smaller" disabled={view.scale === 1}>
          −
        </Button>
        {view.scale > 1 ? <Button onClick={() => setView(WHOLE)}>Whole box</Button> : null}
      </div>
    </div>
  );
}
