'use client';

import { useMemo } from 'react';
import type { Panel, Slot } from '#core/format';
import { type SeenSlot, type Turns, turnPanel } from '#core/panel';
import { formatNumber } from '#core/quantity';

/** Colours of real fuses; the number always stands beside them. */
const FUSE_COLOURS: Readonly<Record<string, string>> = {
  black: '#3a3a3a',
  grey: '#9a9a9a',
  violet: '#9b72c9',
  pink: '#e79ab5',
  tan: '#d3b48a',
  brown: '#a06a3f',
  red: '#d9534a',
  blue: '#5a9bdc',
  yellow: '#edcb3c',
  clear: '#eeeeee',
  green: '#57ad69',
  'blue-green': '#3aa79d',
  orange: '#ee9440',
  white: '#f5f5f5',
};

const STATE_MARKS: Readonly<Record<Slot['state'], string>> = {
  fitted: '',
  empty: 'empty',
  'not-ordered': 'not fitted',
  missing: 'missing',
  spare: 'spare',
  abandoned: 'abandoned',
  tapped: 'tapped',
  unknown: '?',
};

/** The colour in which a slot is drawn, by that of the fuse that sits in it; null where none is known to. */
export function slotFill({ colour, state }: Pick<Slot, 'colour' | 'state'>): string | null {
  return colour !== undefined && (state === 'fitted' || state === 'tapped')
    ? (FUSE_COLOURS[colour] ?? null)
    : null;
}

export function slotName(slot: Slot): string {
  const label = slot.label ? `, printed ${slot.label}` : '';
  const rating = slot.ratingAmps === undefined ? '' : `, ${formatNumber(slot.ratingAmps)} ampere`;
  const state = slot.state === 'fitted' ? '' : `, ${STATE_MARKS[slot.state]}`;
  return `${slot.type} ${slot.number}${label}${rating}${state}`;
}

/** The box as it is being held. Millimetres are drawing units; the text stays upright in every turn. */
export function PanelDrawing({
  panel,
  turns,
  mirrored = false,
  wanted,
  onChoose,
  marks,
  className = '',
}: {
  panel: Panel;
  turns: Turns;
  mirrored?: boolean;
  wanted: string | null;
  onChoose?: (slotId: string) => void;
  /** A sign on a slot, by its id. */
  marks?: ReadonlyMap<string, string>;
  className?: string;
}) {
  const seen = useMemo(() => turnPanel(panel, turns, mirrored), [panel, turns, mirrored]);
  const margin = 14;
  const landmark = landmarkBox(seen.landmarkEdge, seen.width, seen.height);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing has no fieldset
    <svg
      viewBox={`${-margin} ${-margin} ${seen.width + 2 * margin} ${seen.height + 2 * margin}`}
      className={`block w-full ${className}`}
      role="group"
      aria-label={`${panel.name}, ${panel.landmark.name} at the ${seen.landmarkEdge}`}
    >
      <rect
        x={-3}
        y={-3}
        width={seen.width + 6}
        height={seen.height + 6}
        rx={4}
        fill="var(--sunk)"
        stroke="var(--ink)"
        strokeWidth={1.2}
      />
      <rect {...landmark.rect} fill="var(--ink)" />
      <text
        x={landmark.x}
        y={landmark.y}
        transform={landmark.turned ? `rotate(-90 ${landmark.x} ${landmark.y})` : undefined}
        fontSize={6}
        textAnchor="middle"
        fill="var(--ink)"
        fontWeight={700}
      >
        {panel.landmark.name}
      </text>
      {seen.slots.map((one) => (
        <SlotShape
          key={one.slot.id}
          seen={one}
          wanted={one.slot.id === wanted}
          mark={marks?.get(one.slot.id)}
          onChoose={onChoose}
        />
      ))}
    </svg>
  );
}

function landmarkBox(edge: 'top' | 'right' | 'bottom' | 'left', width: number, height: number) {
  const long = edge === 'top' || edge === 'bottom' ? width * 0.4 : height * 0.4;
  switch (edge) {
    case 'top':
      return {
        rect: { x: (width - long) / 2, y: -6, width: long, height: 3 },
        x: width / 2,
        y: -8,
        turned: false,
      };
    case 'bottom':
      return {
        rect: { x: (width - long) / 2, y: height + 3, width: long, height: 3 },
        x: width / 2,
        y: height + 12.5,
        turned: false,
      };
    case 'left':
      return {
        rect: { x: -6, y: (height - long) / 2, width: 3, height: long },
        x: -8,
        y: height / 2,
        turned: true,
      };
    case 'right':
      return {
        rect: { x: width + 3, y: (height - long) / 2, width: 3, height: long },
        x: width + 12,
        y: height / 2,
        turned: true,
      };
  }
}

function SlotShape({
  seen,
  wanted,
  mark,
  onChoose,
}: {
  seen: SeenSlot;
  wanted: boolean;
  mark: string | undefined;
  onChoose?: (slotId: string) => void;
}) {
  const { slot, x, y, width, height } = seen;
  const fitted = slot.state === 'fitted' || slot.state === 'tapped';
  const colour = slot.type === 'fuse' ? slotFill(slot) : null;
  const isRelay = slot.type === 'relay';
  const fill = colour ?? (fitted ? 'var(--sheet)' : 'var(--paper)');
  const ink = colour ? '#14110e' : 'var(--ink)';
  const centreX = x + width / 2;
  const centreY = y + height / 2;
  const size = Math.min(isRelay ? 7 : 5.6, width * 0.62);
  const choose = onChoose ? () => onChoose(slot.id) : undefined;
  return (
    // biome-ignore lint/a11y/useAriaPropsSupportedByRole: the role is a button whenever it can be pressed
    // biome-ignore lint/a11y/noStaticElementInteractions: the role is a button whenever it can be pressed
    <g
      data-slot={slot.id}
      role={onChoose ? 'button' : 'img'}
      tabIndex={onChoose ? 0 : undefined}
      aria-label={slotName(slot)}
      aria-pressed={onChoose ? wanted : undefined}
      onClick={choose}
      onKeyDown={(event) => {
        if (choose && (event.key === 'Enter' || event.key === ' ')) {
          event.preventDefault();
          choose();
        }
      }}
      className={onChoose ? 'cursor-pointer' : undefined}
    >
      {wanted ? (
        <rect
          x={x - 2.6}
          y={y - 2.6}
          width={width + 5.2}
          height={height + 5.2}
          rx={2.5}
          fill="var(--copper-wash)"
          stroke="var(--copper)"
          strokeWidth={2}
        />
      ) : null}
      <rect
        x={x}
        y={y}
        width={width}
        height={height}
        rx={slot.type === 'stud' ? width / 2 : 1.2}
        fill={fill}
        stroke="var(--ink)"
        strokeWidth={fitted ? 0.7 : 0.5}
        strokeDasharray={fitted ? undefined : '1.6 1.2'}
      />
      <text
        x={centreX}
        y={centreY - (fitted ? 0.4 : -size * 0.35)}
        fontSize={size}
        fontWeight={700}
        textAnchor="middle"
        fill={ink}
      >
        {isRelay ? `R${slot.number}` : slot.number}
      </text>
      {fitted && slot.ratingAmps !== undefined ? (
        <text x={centreX} y={centreY + size * 0.85} fontSize={size * 0.72} textAnchor="middle" fill={ink}>
          {formatNumber(slot.ratingAmps)}A
        </text>
      ) : null}
      {seen.pins.map((pin) => (
        <g key={pin.role}>
          <rect x={pin.x - 2.6} y={pin.y - 1.7} width={5.2} height={3.4} rx={0.6} fill="var(--ink)" />
          <text
            x={pin.x}
            y={pin.y + 1}
            fontSize={2.7}
            fontWeight={700}
            textAnchor="middle"
            fill="var(--sheet)"
          >
            {pin.role}
          </text>
        </g>
      ))}
      {mark ? (
        <>
          <circle
            cx={x + width}
            cy={y - 0.6}
            r={2.8}
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth={0.6}
          />
          <text x={x + width} y={y + 0.9} fontSize={4} fontWeight={700} textAnchor="middle" fill="var(--ink)">
            {mark}
          </text>
        </>
      ) : null}
    </g>
  );
}
