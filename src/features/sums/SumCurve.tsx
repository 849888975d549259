'use client';

import { Area, ComposedChart, Line, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { type Curve, figure } from '#core/sizing';

/** A curve that a sum makes: a line, or a band between two, with its limits and places. */
export function SumCurve({ curve }: { curve: Curve }) {
  const data = curve.points.map(({ x, y, low, high }) => ({
    x,
    y,
    band: low === undefined || high === undefined ? undefined : [low, high],
  }));
  const tick = { fill: 'var(--ink)', fontSize: 13 };
  const scale = curve.logarithmic
    ? ({ scale: 'log', domain: ['auto', 'auto'] } as const)
    : curve.close
      ? ({ domain: ['auto', 'auto'] } as const)
      : {};
  return (
    <ResponsiveContainer width="100%" height="100%">
      <ComposedChart
        data={data}
        margin={{ top: 18, bottom: 18, left: 0, right: 16 }}
        accessibilityLayer={false}
      >
        <XAxis
          dataKey="x"
          {...(curve.steps
            ? { type: 'category', padding: { left: 12, right: 12 }, interval: 0 }
            : { type: 'number', domain: ['dataMin', 'dataMax'] })}
          tick={tick}
          stroke="var(--line)"
          tickFormatter={(value: number) => figure(value)}
          label={{
            value: curve.xName,
            position: 'insideBottomRight',
            offset: -12,
            fill: 'var(--soft)',
            fontSize: 13,
          }}
        />
        <YAxis
          {...scale}
          tick={tick}
          stroke="var(--line)"
          width={52}
          tickFormatter={(value: number) => figure(value)}
          label={{ value: curve.yName, position: 'top', offset: 6, fill: 'var(--soft)', fontSize: 13 }}
        />
        {curve.limits.map((limit) => (
          <ReferenceLine
            key={limit.words}
            y={limit.y}
            stroke="var(--bad)"
            strokeDasharray="6 4"
            strokeWidth={2}
            label={{ value: limit.words, position: 'insideTopRight', fill: 'var(--bad)', fontSize: 13 }}
          />
        ))}
        {curve.marks.map((mark) => (
          <ReferenceLine
            key={mark.words}
            x={mark.x}
            stroke="var(--copper)"
            strokeWidth={2}
            ifOverflow="extendDomain"
            label={{ value: mark.words, position: 'top', fill: 'var(--copper)', fontSize: 13 }}
          />
        ))}
        <Area
          dataKey="band"
          stroke="var(--ink)"
          strokeWidth={1.5}
          fill="var(--soft)"
          fillOpacity={0.25}
          isAnimationActive={false}
        />
        <Line
          dataKey="y"
          stroke="var(--ink)"
          strokeWidth={2.5}
          dot={{ r: 3, fill: 'var(--ink)' }}
          isAnimationActive={false}
        />
      </ComposedChart>
    </ResponsiveContainer>
  );
}
