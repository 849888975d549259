'use client';

import { type PointerEvent, useRef, useState } from 'react';
import type { Panel } from '#core/format/panelSchema';
import type { Change } from '#core/panel/edit';
import { slotName } from './PanelDrawing';

const MARGIN = 8;

interface Drag {
  readonly slots: readonly string[];
  readonly fromX: number;
  readonly fromY: number;
  readonly dx: number;
  readonly dy: number;
}

/** The box with its cover text upright; slots are picked, dragged and moved by keys. Millimetres are drawing units. */
export function EditDrawing({
  panel,
  selected,
  onSelect,
  onChange,
}: {
  panel: Panel;
  selected: readonly string[];
  onSelect: (slots: readonly string[]) => void;
  onChange: (change: Change) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const at = (event: PointerEvent) => {
    const matrix = svg.current?.getScreenCTM()?.inverse();
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x: point.x, y: point.y };
  };
  const down = (event: PointerEvent, id: string) => {
    event.stopPropagation();
    const slots = event.shiftKey
      ? selected.includes(id)
        ? selected.filter((one) => one !== id)
        : [...selected, id]
      : selected.includes(id)
        ? selected
        : [id];
    onSelect(slots);
    const { x, y } = at(event);
    setDrag({ slots, fromX: x, fromY: y, dx: 0, dy: 0 });
    svg.current?.setPointerCapture(event.pointerId);
  };
  const move = (event: PointerEvent) => {
    if (!drag) return;
    const { x, y } = at(event);
    setDrag({ ...drag, dx: Math.round(x - drag.fromX), dy: Math.round(y - drag.fromY) });
  };
  const up = () => {
    if (drag && (drag.dx !== 0 || drag.dy !== 0)) {
      onChange({ kind: 'move', slots: drag.slots, dx: drag.dx, dy: drag.dy });
    }
    setDrag(null);
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing has no fieldset
    <svg
      ref={svg}
      viewBox={`${-MARGIN} ${-MARGIN} ${panel.width + 2 * MARGIN} ${panel.height + 2 * MARGIN}`}
      className="block max-h-[70dvh] w-full touch-none border-2 border-line bg-sheet"
      role="group"
      aria-label={`${panel.name}, being edited`}
      onPointerDown={() => onSelect([])}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => setDrag(null)}
    >
      <rect
        x={-2}
        y={-2}
        width={panel.width + 4}
        height={panel.height + 4}
        rx={3}
        fill="var(--sunk)"
        stroke="var(--ink)"
      />
      {panel.slots.map((slot) => {
        const held = drag?.slots.includes(slot.id) ?? false;
        const x = slot.x + (held ? drag!.dx : 0);
        const y = slot.y + (held ? drag!.dy : 0);
        const isSelected = selected.includes(slot.id);
        const size = Math.min(6, slot.width * 0.7, slot.height * 0.5);
        return (
          // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no button element
          <g
            key={slot.id}
            data-slot={slot.id}
            role="button"
            tabIndex={0}
            aria-pressed={isSelected}
            aria-label={slotName(slot)}
            onPointerDown={(event) => down(event, slot.id)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' || event.key === ' ') {
                event.preventDefault();
                onSelect(event.shiftKey ? [...selected, slot.id] : [slot.id]);
              }
            }}
            className="group cursor-move outline-none"
          >
            <rect
              x={x}
              y={y}
              width={slot.width}
              height={slot.height}
              rx={1}
              fill={isSelected ? 'var(--copper-wash)' : 'var(--sheet)'}
              stroke={isSelected ? 'var(--copper)' : 'var(--ink)'}
              strokeWidth={isSelected ? 1.6 : 0.6}
              className="group-focus-visible:[stroke-dasharray:3_1.5]"
            />
            <text
              x={x + slot.width / 2}
              y={y + slot.height / 2 + size * 0.35}
              fontSize={size}
              fontWeight={700}
              textAnchor="middle"
              fill="var(--ink)"
            >
              {slot.type === 'relay' ? `R${slot.number}` : slot.number}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
