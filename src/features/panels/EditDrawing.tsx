'use client';

import { useDrag, type Vector2 } from '@use-gesture/react';
import { useRef, useState } from 'react';
import type { Panel } from '#core/format';
import type { Change } from '#core/panel';
import { slotName } from './PanelDrawing';
import { type CoverPhoto, Underlay } from './Underlay';

const MARGIN = 8;

interface Drag {
  readonly slots: readonly string[];
  /** The slot under the finger: it alone stays selected when nothing is moved. */
  readonly pressed: string | null;
  readonly dx: number;
  readonly dy: number;
  /** The corner of one slot is held: it grows instead of moving. */
  readonly resizes: boolean;
}

/** What is picked once a slot is pressed: with shift it joins or leaves, else it is alone unless it was among them. */
function picked(id: string, selected: readonly string[], shift: boolean): readonly string[] {
  const among = selected.includes(id);
  if (shift) return among ? selected.filter((one) => one !== id) : [...selected, id];
  return among ? selected : [id];
}

/** The box with its cover text upright; slots are picked, dragged and moved by keys. Millimetres are drawing units. */
export function EditDrawing({
  panel,
  selected,
  photo,
  onSelect,
  onChange,
}: {
  panel: Panel;
  /** Lies under the drawing, straightened. */
  photo: CoverPhoto | null;
  selected: readonly string[];
  onSelect: (slots: readonly string[]) => void;
  onChange: (change: Change) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  /** A place on the screen in the millimetres of the box. */
  const at = ([x, y]: Vector2) => new DOMPoint(x, y).matrixTransform(svg.current?.getScreenCTM()?.inverse());
  const bind = useDrag(({ args, event, shiftKey, first, last, canceled, initial, xy }) => {
    const [id, resizes = false] = args as [string, boolean?];
    event.stopPropagation();
    if (first) {
      const slots = picked(id, selected, shiftKey);
      onSelect(slots);
      return setDrag({ slots, pressed: shiftKey ? null : id, dx: 0, dy: 0, resizes });
    }
    if (!drag) return;
    const [from, to] = [at(initial), at(xy)];
    const now = { ...drag, dx: Math.round(to.x - from.x), dy: Math.round(to.y - from.y) };
    if (!last) return setDrag(now);
    if (!canceled) finish(now);
    setDrag(null);
  });
  const finish = ({ slots, pressed, resizes, dx, dy }: Drag) => {
    if (dx === 0 && dy === 0) {
      if (pressed) onSelect([pressed]);
    } else if (!resizes) onChange({ kind: 'move', slots, dx, dy });
    else {
      const slot = panel.slots.find((one) => one.id === slots[0]);
      if (!slot) return;
      const fields = { width: Math.max(2, slot.width + dx), height: Math.max(2, slot.height + dy) };
      onChange({ kind: 'set', slots: [slot.id], fields });
    }
  };
  const fullWidth = panel.width + 2 * MARGIN;
  const fullHeight = panel.height + 2 * MARGIN;
  return (
    <div className="relative">
      {photo ? (
        <Underlay
          photo={photo}
          box={{
            x: MARGIN / fullWidth,
            y: MARGIN / fullHeight,
            width: panel.width / fullWidth,
            height: panel.height / fullHeight,
          }}
        />
      ) : null}
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing has no fieldset */}
      <svg
        ref={svg}
        viewBox={`${-MARGIN} ${-MARGIN} ${panel.width + 2 * MARGIN} ${panel.height + 2 * MARGIN}`}
        className={`relative block w-full touch-none border-2 border-line ${photo ? '' : 'bg-sheet'}`}
        role="group"
        aria-label={`${panel.name}, being edited`}
        onPointerDown={() => onSelect([])}
      >
        <rect
          x={-2}
          y={-2}
          width={panel.width + 4}
          height={panel.height + 4}
          rx={3}
          fill={photo ? 'none' : 'var(--sunk)'}
          stroke="var(--ink)"
        />
        {panel.slots.map((slot) => {
          const held = drag?.slots.includes(slot.id) ?? false;
          const moves = held && !drag!.resizes;
          const grows = held && drag!.resizes;
          const x = slot.x + (moves ? drag!.dx : 0);
          const y = slot.y + (moves ? drag!.dy : 0);
          const width = Math.max(2, slot.width + (grows ? drag!.dx : 0));
          const height = Math.max(2, slot.height + (grows ? drag!.dy : 0));
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
              {...bind(slot.id)}
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
                width={width}
                height={height}
                rx={1}
                fill={isSelected ? 'var(--copper-wash)' : 'var(--sheet)'}
                fillOpacity={photo ? 0.55 : 1}
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
              {isSelected && selected.length === 1 ? (
                <rect
                  x={x + width - 1.5}
                  y={y + height - 1.5}
                  width={4}
                  height={4}
                  fill="var(--copper)"
                  className="cursor-nwse-resize"
                  data-testid="resize"
                  {...bind(slot.id, true)}
                />
              ) : null}
            </g>
          );
        })}
      </svg>
    </div>
  );
}
