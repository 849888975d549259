'use client';

import dynamic from 'next/dynamic';
import { memo, type RefObject, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { bracketOf, bracketWords, type PartStanding, profileOf, type Run } from '#core/diagnosis';
import { formatQuantity } from '#core/quantity';
import type { RunRow } from './runRow';

/** The drawing package is large: it comes after the first card, and before a server that may go away is needed for it. */
const loadProfile = () => import('./VoltageProfile').then((loaded) => loaded.VoltageProfile);
const VoltageProfile = dynamic(() => loadProfile().catch(() => NoProfile), { ssr: false });
if (typeof window !== 'undefined') setTimeout(() => void loadProfile().catch(() => undefined), 1500);

/** Where the server went away before the drawing of volts could be fetched; the stops carry the same figures. */
function NoProfile() {
  return null;
}

const LINE_X = 52;
const PROFILE = 120;

/** Where the words of stops and stations came to lie, px from the top of the list. */
interface Laid {
  readonly stops: readonly number[];
  readonly stations: readonly number[];
  readonly height: number;
}

const NOT_LAID: Laid = { stops: [], stations: [], height: 0 };

/** Names are as long as they are and text as large as the reader wants it: what is drawn follows where they lie. */
function useLaid(list: RefObject<HTMLOListElement | null>, run: Run): Laid {
  const [laid, setLaid] = useState(NOT_LAID);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another run has other rows in the same list
  useLayoutEffect(() => {
    const shown = list.current;
    if (!shown) return;
    const measure = () => {
      const middles = (wanted: string) =>
        [...shown.querySelectorAll<HTMLElement>(wanted)].map((one) => one.offsetTop + one.offsetHeight / 2);
      setLaid({
        stops: middles('[data-stop]'),
        stations: middles('[data-station]'),
        height: shown.offsetHeight,
      });
    };
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(shown);
    return () => watch.disconnect();
  }, [list, run]);
  return laid;
}

/**
 * The run from source to earth: stops are points a probe can touch (expected value outlined, measured value
 * filled), stations are parts, the bar beside a part is as long as its chance, the bracket spans the stops
 * between which the fault must lie. Beside it the volts at every stop, with what is lost filled.
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
  const profile = useMemo(() => profileOf(rows), [rows]);
  const list = useRef<HTMLOListElement>(null);
  const { stops, stations, height } = useLaid(list, run);
  const whole = stops.length === run.stops.length && stations.length === run.stations.length;
  return (
    <div data-testid="run">
      <div className="sticky top-[92px] z-10 flex min-h-11 items-end gap-2 border-b border-line bg-paper lg:top-0 low:top-0">
        <p className="min-w-0 flex-1 py-1 leading-tight font-semibold" data-testid="bracket">
          {bracket ? bracketWords(run, bracket) : 'From the source to the end'}
        </p>
        <p
          className="reading flex justify-between px-1.5 pb-1 text-[0.8rem] text-soft"
          style={{ width: PROFILE }}
        >
          <span>0</span>
          <span>{(Math.max(1, profile.supply) / 2).toFixed(1)}</span>
          <span>{Math.max(1, profile.supply).toFixed(1)} V</span>
        </p>
      </div>
      <div className="relative">
        {whole ? (
          <svg width="100%" height={height} className="absolute inset-0" aria-hidden="true">
            <line
              x1={LINE_X}
              x2={LINE_X}
              y1={stops[0]}
              y2={stops.at(-1)}
              stroke="var(--copper)"
              strokeWidth={4}
            />
            {bracket ? (
              <path
                d={`M ${LINE_X - 14} ${stops[bracket[0]]! + 8} h -7 V ${stops[bracket[1]]! - 8} h 7`}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={2.5}
              />
            ) : null}
            {run.stations.map((station, index) => {
              const standing = standings.get(station.part);
              const chance = standing?.chance ?? 0;
              const y = stations[index]!;
              const length = Math.max(chance * 28, chance > 0.004 ? 2 : 0);
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
                  <rect x={LINE_X - 22 - length} y={y - 5} width={length} height={10} fill="var(--ink)" />
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
                  cy={stops[index]}
                  r={hereNode === stop ? 9 : 6.5}
                  fill={filled ? 'var(--ink)' : 'var(--sheet)'}
                  stroke={hereNode === stop ? 'var(--copper)' : 'var(--ink)'}
                  strokeWidth={hereNode === stop ? 4 : 2.5}
                />
              );
            })}
          </svg>
        ) : null}
        <ol
          ref={list}
          className="relative py-2"
          style={{ paddingLeft: LINE_X + 14, paddingRight: PROFILE + 6 }}
          aria-label={`Run of ${run.name}, from the source to earth`}
        >
          {run.stops.map((stop, index) => {
            const row = rows[index];
            const station = run.stations[index];
            const can = probeable.has(stop);
            return (
              <li key={stop}>
                <div data-stop className="relative flex min-h-6 items-center gap-1">
                  {row ? <StopValues row={row} /> : null}
                  {can ? (
                    <button
                      type="button"
                      onClick={() => onProbe(stop)}
                      className="absolute -top-2.5 -left-9 h-11 w-36 rounded"
                      aria-label={`Card for ${stopName(run, index)}`}
                    />
                  ) : null}
                </div>
                {station ? (
                  <p
                    data-station
                    className={`py-1 text-[0.95rem] leading-tight ${
                      herePart === station.part ? 'font-bold text-copper' : ''
                    }`}
                  >
                    {station.name}
                    <StandingMark standing={standings.get(station.part)} />
                  </p>
                ) : null}
              </li>
            );
          })}
        </ol>
        {whole ? (
          <div className="absolute top-0 right-0" style={{ width: PROFILE, height }}>
            <VoltageProfile rows={rows} profile={profile} tops={stops} width={PROFILE} height={height} />
            {profile.losses.map(({ from, to, volts }) => (
              <span
                key={from}
                className="reading absolute right-1.5 -translate-y-1/2 rounded bg-bad px-1 text-[0.85rem] font-bold text-paper"
                style={{ top: (stops[from]! + stops[to]!) / 2 }}
                data-testid="loss"
              >
                <span className="sr-only">lost here beyond the usual: </span>
                {formatQuantity(volts, 'V')}
              </span>
            ))}
          </div>
        ) : null}
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
  return <span className="whitespace-nowrap text-soft"> {Math.round(standing.chance * 100)} %</span>;
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
