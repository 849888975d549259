'use client';

import type { Panel } from '#core/format';
import { slotScene, type Turns } from '#core/panel';
import { slotFill } from '@/features/panels';

const FRAME = { x: 4, y: 4, width: 340, height: 70 } as const;

/** The row of the box as it is held, with the slot in hand marked, its neighbours and what was found of them. */
export function SlotRow({
  panel,
  slot,
  turns,
  marks,
}: {
  panel: Panel;
  slot: string;
  turns: Turns;
  /** Sign of the verdict by slot. */
  marks: ReadonlyMap<string, string>;
}) {
  const scene = slotScene(panel, slot, turns, FRAME);
  if (!scene) return null;
  return (
    <svg
      viewBox={`0 0 ${FRAME.width + 8} ${FRAME.height + 8}`}
      className="block h-[78px] w-full"
      aria-hidden="true"
      fontSize="13"
      textAnchor="middle"
      data-testid="slot-row"
    >
      {scene.slots.map(({ slot: one, here, x, y, width, height }) => {
        const fill = one.type === 'fuse' ? slotFill(one) : null;
        const ink = fill ? (one.colour === 'black' ? '#ffffff' : '#14100d') : 'var(--ink)';
        return (
          <g key={one.id}>
            <rect
              x={x}
              y={y}
              width={width}
              height={height}
              rx="4"
              fill={fill ?? 'var(--paper)'}
              stroke={here ? 'var(--copper)' : 'var(--line)'}
              strokeWidth={here ? 5 : 1.5}
            />
            <text x={x + width / 2} y={y + height / 2 - 2} fontWeight="700" fill={ink}>
              {one.number}
            </text>
            <text x={x + width / 2} y={y + height / 2 + 15} fontSize="15" fill={ink}>
              {marks.get(one.id) ?? ''}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
