'use client';

import { type KeyboardEvent, useMemo } from 'react';
import {
  type Diagram,
  EARTH_SIGN,
  type LaidBox,
  type LaidEdge,
  lettersAt,
  pathOf,
  type Stroke,
  voltsPlaces,
} from '#core/diagram';
import type { LiveState } from '#core/live';

const MARGIN = 18;

export interface LiveMarks {
  /** Volts of each point, and whether it hangs. */
  readonly volts: ReadonlyMap<string, { readonly volts: number; readonly floating: boolean }>;
  /** The largest current through each part, ampere. */
  readonly amps: ReadonlyMap<string, number>;
  /** Parts that are pulled, broken, open or overloaded, with the word for it. */
  readonly marks: ReadonlyMap<string, string>;
  readonly supplyVolts: number;
  /** Parts whose contact does not stand at rest. */
  readonly moved: ReadonlySet<string>;
  readonly reference: string;
}

export function liveMarks(
  state: LiveState,
  marks: ReadonlyMap<string, string>,
  supplyVolts: number,
  moved: ReadonlySet<string>,
  reference: string,
): LiveMarks {
  const amps = new Map<string, number>();
  for (const one of state.branches) {
    amps.set(one.part, Math.max(amps.get(one.part) ?? 0, Math.abs(one.amps)));
  }
  return {
    volts: new Map(state.nodes.map(({ node, volts, floating }) => [node, { volts, floating }])),
    amps,
    marks,
    supplyVolts,
    moved,
    reference,
  };
}

export function voltsText(at: { volts: number; floating: boolean } | undefined): string {
  if (!at) return '';
  if (at.floating) return 'hangs';
  return `${(Math.abs(at.volts) < 0.005 ? 0 : at.volts).toFixed(2)} V`;
}

export function ampsText(amps: number): string {
  return amps < 0.0005 ? '' : amps < 0.1 ? `${(amps * 1000).toFixed(0)} mA` : `${amps.toFixed(2)} A`;
}

/** The drawn circuit. Live points are thick, hanging ones broken; what is chosen stands in copper. */
export function CircuitDrawing({
  diagram,
  title,
  selected,
  live,
  onSelect,
}: {
  diagram: Diagram;
  title: string;
  selected: string | null;
  live: LiveMarks | null;
  onSelect: (part: string) => void;
}) {
  const places = useMemo(() => voltsPlaces(diagram.edges), [diagram]);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing has no fieldset
    <svg
      viewBox={`${-MARGIN} ${-MARGIN} ${diagram.width + 2 * MARGIN} ${diagram.height + 2 * MARGIN}`}
      className="block h-auto"
      role="group"
      aria-label={`${title}, drawn`}
      data-testid="diagram"
      // Whole when it opens, however large it is; from there it is enlarged.
      style={{ width: `min(100%, ${(diagram.width + 2 * MARGIN) * 1.2}px)`, maxHeight: '82dvh' }}
    >
      {diagram.edges.map((edge) => (
        <Edge
          key={edge.id}
          edge={edge}
          live={live}
          says={places.get(edge.id) ?? null}
          selected={edge.wire !== null && edge.wire === selected}
          onSelect={onSelect}
        />
      ))}
      {diagram.boxes.map((box) => (
        <Box key={box.id} box={box} live={live} selected={box.id === selected} onSelect={onSelect} />
      ))}
    </svg>
  );
}

function pressed(event: KeyboardEvent, act: () => void): void {
  if (event.key !== 'Enter' && event.key !== ' ') return;
  event.preventDefault();
  act();
}

function Edge({
  edge,
  live,
  says,
  selected,
  onSelect,
}: {
  edge: LaidEdge;
  live: LiveMarks | null;
  /** Where this edge writes the volts of its upper point; null where they stand elsewhere. */
  says: { readonly x: number; readonly y: number } | null;
  selected: boolean;
  onSelect: (part: string) => void;
}) {
  const at = live?.volts.get(edge.from);
  const isLive = at !== undefined && !at.floating && Math.abs(at.volts) > 0.5 * (live?.supplyVolts ?? 12);
  const path = pathOf(edge.points);
  const wire = edge.wire;
  const broken = wire ? live?.marks.get(wire) : undefined;
  // Everything is measured against the reference; its own nothing would only be in the way.
  const volts = says && edge.from !== live?.reference ? voltsText(at) : '';
  return (
    // biome-ignore lint/a11y/useAriaPropsSupportedByRole: the role is a button whenever it can be pressed
    // biome-ignore lint/a11y/noStaticElementInteractions: the role is a button whenever it can be pressed
    <g
      role={wire ? 'button' : undefined}
      tabIndex={wire ? 0 : undefined}
      aria-label={wire ? `Wire ${wire} ${edge.label?.text ?? ''}${broken ? `, ${broken}` : ''}` : undefined}
      aria-pressed={wire ? selected : undefined}
      data-part={wire ?? undefined}
      onClick={wire ? () => onSelect(wire) : undefined}
      onKeyDown={wire ? (event) => pressed(event, () => onSelect(wire)) : undefined}
      className={wire ? 'cursor-pointer' : undefined}
    >
      {wire ? <path d={path} fill="none" stroke="transparent" strokeWidth={14} /> : null}
      <path
        d={path}
        fill="none"
        stroke={selected ? 'var(--copper)' : 'var(--ink)'}
        strokeWidth={selected ? 4 : isLive ? 2.8 : 1.3}
        strokeDasharray={at?.floating ? '4 3' : undefined}
      />
      {edge.label ? (
        <text x={edge.label.x} y={edge.label.y + 9} fontSize={10} fill="var(--soft)">
          {edge.label.text}
          {broken ? ` ▲ ${broken}` : ''}
        </text>
      ) : null}
      {volts && says ? (
        <text
          x={says.x}
          y={says.y}
          fontSize={10}
          fontWeight={700}
          className="reading"
          fill="var(--ink)"
          data-volts={edge.from}
        >
          {volts}
        </text>
      ) : null}
    </g>
  );
}

function Box({
  box,
  live,
  selected,
  onSelect,
}: {
  box: LaidBox;
  live: LiveMarks | null;
  selected: boolean;
  onSelect: (part: string) => void;
}) {
  const { drawn, x, y, id } = box;
  if (drawn.kind === 'dot') return <circle cx={x + 4} cy={y + 4} r={3.2} fill="var(--ink)" />;
  if (drawn.kind === 'earth') {
    return (
      <path
        transform={`translate(${x} ${y})`}
        d={EARTH_SIGN}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.3}
      />
    );
  }
  const { symbol, lines } = drawn;
  const mark = live?.marks.get(id);
  const amps = ampsText(live?.amps.get(id) ?? 0);
  const letters = lettersAt(symbol, lines.length);
  const moved = live?.moved.has(id) ?? false;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing has no button
    <g
      transform={`translate(${x} ${y})`}
      role="button"
      tabIndex={0}
      aria-label={`${drawn.part.name}${mark ? `, ${mark}` : ''}`}
      aria-pressed={selected}
      data-part={id}
      onClick={() => onSelect(id)}
      onKeyDown={(event) => pressed(event, () => onSelect(id))}
      className="cursor-pointer"
    >
      <rect
        x={-6}
        y={-2}
        width={letters.x + 90}
        height={symbol.height + 4}
        fill={selected ? 'var(--copper-wash)' : 'transparent'}
      />
      {symbol.strokes.map((one) => (
        <Drawn key={JSON.stringify(one)} one={one} strong={selected} moved={moved} />
      ))}
      {lines.map((line, index) => (
        <text
          key={line}
          x={letters.x}
          y={letters.names[index]}
          fontSize={11}
          fontWeight={index === 0 ? 700 : 400}
          fill="var(--ink)"
        >
          {line}
        </text>
      ))}
      {mark || amps ? (
        <text
          x={letters.x}
          y={letters.live}
          fontSize={11}
          fontWeight={700}
          className="reading"
          fill={mark ? 'var(--bad)' : 'var(--copper)'}
        >
          {mark ? `▲ ${mark} ` : ''}
          {amps}
        </text>
      ) : null}
    </g>
  );
}

function Drawn({ one, strong, moved }: { one: Stroke; strong: boolean; moved: boolean }) {
  if ('text' in one) {
    return (
      <text
        x={one.x}
        y={one.y}
        fontSize={one.size}
        textAnchor={one.middle ? 'middle' : 'start'}
        fill="var(--ink)"
      >
        {one.text}
      </text>
    );
  }
  if (one.when !== undefined && (one.when === 'moved') !== moved) return null;
  return (
    <path
      d={one.path}
      fill={one.filled ? 'var(--ink)' : 'none'}
      stroke={strong ? 'var(--copper)' : 'var(--ink)'}
      strokeWidth={strong ? 2.2 : 1.4}
      strokeDasharray={one.dashed ? '3 2' : undefined}
    />
  );
}
