'use client';

import dynamic from 'next/dynamic';
import { memo, useMemo } from 'react';
import { bracketOf, type PartStanding, type Run } from '#core/diagnosis';
import { formatQuantity } from '#core/quantity';

/** The drawing package is large: it comes after the first card, and before a server that may go away is needed for it. */
const loadProfile = () => import('./VoltageProfile').then((loaded) => loaded.VoltageProfile);
const VoltageProfile = dynamic(() => loadProfile().catch(() => NoProfile), { ssr: false });
if (typeof window !== 'undefined') setTimeout(() => void loadProfile().catch(() => undefined), 1500);

/** Where the server went away before the drawing of volts could be fetched; the stops carry the same figures. */
function NoProfile() {
  return null;
}

/** One row of the run is one stop and the part behind it. */
export const ROW = 46;
const LINE_X = 64;
const PROFILE = 72;
const TOP = 20;

/** One stop of a run with what is expected and what was measured there, volts. */
export interface RunRow {
  readonly node: string;
  readonly expected: number;
  readonly measured: number | null;
}

/**
 * The run from source to earth: stops are points a probe can touch (expected value outlined, measured value
 * filled), stations are parts, the bar beside a part is as long as its chance, the bracket spans the stops
 * between which the fault must lie.
 */
export const RunDrawing = memo(function RunDrawing({
  run,
  rows,
  bracketed,
  standings,
  hereNode,
  herePart,
  probeable,
  onProbe,
}: {
  run: Run;
  rows: readonly RunRow[];
  /** Whether volts are missing somewhere: not on what runs when it should be off. */
  bracketed: boolean;
  standings: ReadonlyMap<string, PartStanding>;
  /** Node or part of the card in focus. */
  hereNode: string | null;
  herePart: string | null;
  probeable: ReadonlySet<string>;
  onProbe: (node: string) => void;
}) {
  const bracket = useMemo(() => (bracketed ? bracketOf(run, standings) : null), [run, standings, bracketed]);
  const height = TOP * 2 + (run.stops.length - 1) * ROW;
  const yOf = (stop: number) => TOP + stop * ROW;
  return (
    <div className="relative" style={{ height }} data-testid="run">
      <svg width="100%" height={height} className="absolute inset-0" aria-hidden="true">
        <line
          x1={LINE_X}
          x2={LINE_X}
          y1={yOf(0)}
          y2={yOf(run.stops.length - 1)}
          stroke="var(--copper)"
          strokeWidth={4}
        />
        {bracket ? (
          <path
            d={`M ${LINE_X - 14} ${yOf(bracket[0]) + 8} h -7 V ${yOf(bracket[1]) - 8} h 7`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={2.5}
          />
        ) : null}
        {run.stations.map((station, index) => {
          const standing = standings.get(station.part);
          const chance = standing?.chance ?? 0;
          const y = yOf(index) + ROW / 2;
          const length = Math.max(chance * 38, chance > 0.004 ? 2 : 0);
          return (
            <g key={station.part}>
              <rect
                x={LINE_X - 5}
                y={y - 6}
                width={10}
                height={12}
                rx={2}
                fill={standing?.standing === 'cleared' ? 'var(--sheet)' : 'var(--copper)'}
                stroke="var(--copper)"
                strokeWidth={2}
              />
              <rect x={LINE_X - 24 - length} y={y - 5} width={length} height={10} fill="var(--ink)" />
            </g>
          );
        })}
        {run.stops.map((stop, index) => {
          const row = rows[index];
          const filled = row?.measured !== null && row?.measured !== undefined;
          return (
            <circle
              key={stop}
              cx={LINE_X}
              cy={yOf(index)}
              r={hereNode === stop ? 9 : 6.5}
              fill={filled ? 'var(--ink)' : 'var(--sheet)'}
              stroke={hereNode === stop ? 'var(--copper)' : 'var(--ink)'}
              strokeWidth={hereNode === stop ? 4 : 2.5}
            />
          );
        })}
      </svg>
      <ol className="absolute inset-0" aria-label={`Run of ${run.name}, from the source to earth`}>
        {run.stops.map((stop, index) => {
          const row = rows[index];
          const station = run.stations[index];
          const can = probeable.has(stop);
          return (
            <li key={stop}>
              <div
                className="absolute flex items-center gap-1"
                style={{ left: LINE_X + 14, top: yOf(index) - 11, height: 22 }}
              >
                {row ? <StopValues row={row} /> : null}
                {can ? (
                  <button
                    type="button"
                    onClick={() => onProbe(stop)}
                    className="absolute -top-3 -left-9 size-11 rounded-full"
                    aria-label={`Card for ${stopName(run, index)}`}
                  />
                ) : null}
              </div>
              {station ? (
                <p
                  className={`absolute truncate text-[0.9rem] leading-tight ${
                    herePart === station.part ? 'font-bold text-copper' : ''
                  }`}
                  style={{ left: LINE_X + 14, top: yOf(index) + ROW / 2 - 9, right: PROFILE + 4 }}
                >
                  {station.name}
                  <StandingMark standing={standings.get(station.part)} />
                </p>
              ) : null}
            </li>
          );
        })}
      </ol>
      <div className="absolute right-0" style={{ top: 0, width: PROFILE, height }}>
        <VoltageProfile rows={rows} top={TOP} width={PROFILE} height={height} />
      </div>
    </div>
  );
});

function stopName(run: Run, index: number): string {
  const before = run.stations[index - 1]?.name;
  const after = run.stations[index]?.name;
  if (before && after) return `the point between ${before} and ${after}`;
  return before ? `the point behind ${before}` : `the point before ${after}`;
}

function StandingMark({ standing }: { standing: PartStanding | undefined }) {
  if (!standing) return null;
  if (standing.standing === 'cleared') {
    return (
      <span className="text-good">
        {' '}
        <span aria-hidden="true">✓</span>
        <span className="sr-only">cleared</span>
      </span>
    );
  }
  if (standing.standing === 'excluded') {
    return (
      <span className="text-soft">
        {' '}
        <span aria-hidden="true">–</span>
        <span className="sr-only">not the cause, not proved under load</span>
      </span>
    );
  }
  if (standing.chance < 0.01) return null;
  return <span className="text-soft"> {Math.round(standing.chance * 100)} %</span>;
}

function StopValues({ row }: { row: RunRow }) {
  return (
    <span className="reading flex items-center gap-1 text-[0.9rem]">
      <span className="rounded border border-soft px-1 leading-[1.25] text-soft">
        <span className="sr-only">expected </span>
        {row.expected.toFixed(1)}
      </span>
      {row.measured === null ? null : (
        <span className="rounded bg-ink px-1 leading-[1.25] font-bold text-paper">
          <span className="sr-only">measured </span>
          {formatQuantity(row.measured, 'V')}
        </span>
      )}
    </span>
  );
}
