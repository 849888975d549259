'use client';

import { type ReactNode, useMemo } from 'react';
import {
  cardPicture,
  PICTURE,
  type CardPicture as Picture,
  pictureShape,
  plugShape,
  type Run,
  slotShape,
} from '#core/diagnosis';
import type { CircuitFile, Panel, TestRef } from '#core/format';
import type { Turns } from '#core/panel';

/**
 * Where the leads go: the row of the box, the cavities of the plug or the stretch of the run, what is held, and every
 * point that is touched. A tap opens the box at that slot, or the run.
 */
export function CardPicture({
  circuit,
  test,
  runs,
  box,
  onOpen,
}: {
  circuit: CircuitFile;
  test: TestRef;
  runs: readonly Run[];
  /** The slot at which it is done, in its box as it is held; null where no slot is known. */
  box: { readonly panel: Panel; readonly slot: string; readonly turns: Turns } | null;
  /** To the box where its row is drawn, else to the run. */
  onOpen: (what: 'box' | 'run') => void;
}) {
  const picture = useMemo(() => cardPicture(circuit, test, runs), [circuit, test, runs]);
  const { panel, slot, turns } = box ?? { panel: null, slot: '', turns: 0 as Turns };
  const shape = useMemo(
    () =>
      (panel && slotShape(picture, { panel, slot, turns, parts: circuit.parts })) ??
      plugShape(picture, circuit.parts) ??
      pictureShape(picture),
    [picture, panel, slot, turns, circuit],
  );
  const { instrument, run } = shape;
  return (
    <button
      type="button"
      onClick={() => onOpen(shape.slots.length > 0 ? 'box' : 'run')}
      aria-label={`${inWords(picture)} ${shape.slots.length > 0 ? 'To the whole box.' : 'To the whole run.'}`}
      className="block w-full"
      data-testid="card-picture"
    >
      <svg
        viewBox={`0 0 ${PICTURE.width} ${PICTURE.height}`}
        className="mx-auto block max-h-[200px] w-full max-w-lg lg:max-h-[150px]"
        aria-hidden="true"
        fontSize="12.5"
        fill="var(--ink)"
      >
        {run ? (
          <line x1={run.from} x2={run.to} y1={run.y} y2={run.y} stroke="var(--soft)" strokeWidth="3" />
        ) : null}
        {shape.stations.map(({ x, y, width, height, here, label }) => (
          <g key={x}>
            <rect
              x={x}
              y={y}
              width={width}
              height={height}
              rx="4"
              fill={here ? 'var(--copper-wash)' : 'var(--paper)'}
              stroke={here ? 'var(--copper)' : 'var(--line)'}
              strokeWidth="2"
            />
            <Words label={label} />
          </g>
        ))}
        {shape.slots.map(({ slot: one, here, x, y, width, height }) => (
          <g key={one.id}>
            <rect
              x={x}
              y={y}
              width={width}
              height={height}
              rx="3"
              fill={here ? 'var(--copper-wash)' : 'var(--paper)'}
              stroke={here ? 'var(--copper)' : 'var(--line)'}
              strokeWidth={here ? 3 : 1.5}
            />
            {/* Where a lead ends in it, its number stands beneath. */}
            {here && shape.points.length > 0 ? null : (
              <text x={x + width / 2} y={y + height / 2 + 4} textAnchor="middle" opacity={here ? 1 : 0.7}>
                {one.number}
              </text>
            )}
          </g>
        ))}
        {shape.cavities.map(({ x, y, width, height, name, here }) => (
          <g key={name}>
            <circle
              cx={x + width / 2}
              cy={y + height / 2}
              r={width / 2}
              fill={here ? 'var(--copper-wash)' : 'var(--paper)'}
              stroke={here ? 'var(--copper)' : 'var(--line)'}
              strokeWidth={here ? 3 : 1.5}
            />
            {here ? null : (
              <text x={x + width / 2} y={y + height / 2 + 4} textAnchor="middle" opacity={0.7}>
                {name}
              </text>
            )}
          </g>
        ))}
        {shape.caption ? <Words label={shape.caption} /> : null}
        {shape.pointer ? (
          <path
            d={shape.pointer}
            fill="none"
            stroke="var(--copper)"
            strokeWidth="2.5"
            strokeDasharray="5 4"
          />
        ) : null}
        {shape.points.map(({ path, end }) => (
          <g key={`${end.node} ${end.stop}`} fill="none">
            <path d={path} stroke="var(--ink)" strokeWidth={end.pole === 'minus' ? 6 : 3} />
            {end.pole === 'minus' ? <path d={path} stroke="var(--sheet)" strokeWidth="2.5" /> : null}
          </g>
        ))}
        {shape.points.map(({ x, y, end, label }) => (
          <g key={`point ${end.node} ${end.stop}`} data-point={end.node}>
            <circle
              cx={x}
              cy={y}
              r="7.5"
              fill={end.pole === 'minus' ? 'var(--sheet)' : 'var(--copper)'}
              stroke={end.pole === 'minus' ? 'var(--ink)' : 'var(--copper)'}
              strokeWidth="2"
            />
            <path
              d={`M${x - 4} ${y} H${x + 4}${end.pole === 'plus' ? ` M${x} ${y - 4} V${y + 4}` : ''}`}
              stroke={end.pole === 'minus' ? 'var(--ink)' : 'var(--on-copper)'}
              strokeWidth="2"
            />
            <Words label={label} />
          </g>
        ))}
        <rect {...instrument} rx="3" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2.5" />
        <g
          transform={`translate(${instrument.x + instrument.width / 2} ${instrument.y + instrument.height / 2})`}
        >
          {SIGNS[picture.sign]}
        </g>
        <Words label={shape.range} />
      </svg>
    </button>
  );
}

function Words({ label: { lines, anchor, x, y } }: { label: ReturnType<typeof pictureShape>['range'] }) {
  return (
    <text x={x} y={y} textAnchor={anchor}>
      {lines.map((line, index) => (
        <tspan key={line} x={x} dy={index === 0 ? 0 : 13}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

/** The same for whoever does not see it. */
function inWords({ leads, range, stations }: Picture): string {
  const here = stations.find((station) => station.here);
  const POLES = { plus: 'Plus lead on', minus: 'Minus lead on' } as const;
  const ends = leads.map(({ pole, name }) => `${pole ? POLES[pole] : 'Lead on'} ${name}.`);
  return `${range}. ${ends.length > 0 ? ends.join(' ') : here ? `At ${here.name}.` : ''}`;
}

const LETTER = { textAnchor: 'middle', fontSize: 20, fontWeight: 700 } as const;
const LINE = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 2.5 } as const;
/** Direct current: a bar over three dashes. */
const DC = <path d="M-11 10 H11 M-11 15 H-5 M-3 15 H3 M5 15 H11" {...LINE} strokeWidth={2} />;

const SIGNS: Readonly<Record<Picture['sign'], ReactNode>> = {
  volts: (
    <>
      <text {...LETTER} y="3">
        V
      </text>
      {DC}
    </>
  ),
  millivolts: (
    <>
      <text {...LETTER} fontSize="16" y="3">
        mV
      </text>
      {DC}
    </>
  ),
  ohms: (
    <text {...LETTER} y="7">
      Ω
    </text>
  ),
  clamp: (
    <>
      <circle r="15" {...LINE} strokeDasharray="70 24" transform="rotate(-65)" />
      <text {...LETTER} fontSize="16" y="6">
        A
      </text>
    </>
  ),
  lamp: (
    <>
      <circle r="13" {...LINE} />
      <path d="M-9 -9 L9 9 M-9 9 L9 -9" {...LINE} />
    </>
  ),
  led: <path d="M-10 -10 V10 L8 0 Z M9 -10 V10 M-16 0 H-10 M9 0 H16" {...LINE} />,
  'fused-lead': <path d="M-17 0 H17 M-9 -6 H9 V6 H-9 Z" {...LINE} />,
  eye: (
    <>
      <path d="M-15 0 Q0 -15 15 0 Q0 15 -15 0 Z" {...LINE} />
      <circle r="4.5" />
    </>
  ),
  ear: <path d="M-10 -6 H-4 L4 -13 V13 L-4 6 H-10 Z M9 -7 Q14 0 9 7" {...LINE} />,
  hand: <path d="M0 -13 V13 M-6 7 L0 13 L6 7 M-13 -13 H13" {...LINE} />,
};
