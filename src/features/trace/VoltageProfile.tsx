'use client';

import { Area, ComposedChart, Line, ReferenceLine, XAxis, YAxis } from 'recharts';
import type { Profile } from '#core/diagnosis';
import type { RunRow } from './runRow';

/**
 * Volts against the stops, drawn beside the run and in step with it: expected thin, measured thick, what lies between
 * them filled. `tops` are the heights of the stops in px.
 */
export function VoltageProfile({
  rows,
  profile,
  tops,
  width,
  height,
}: {
  rows: readonly RunRow[];
  profile: Profile;
  tops: readonly number[];
  width: number;
  height: number;
}) {
  const data = rows.map((row, index) => {
    const line = profile.line[index] ?? null;
    return {
      position: tops[index] ?? 0,
      expected: row.expected,
      measured: row.measured,
      gap: line === null ? null : [Math.min(line, row.expected), Math.max(line, row.expected)],
    };
  });
  const supply = Math.max(1, profile.supply);
  const known = rows.filter((row) => row.measured !== null).length;
  const losses = profile.losses.map(({ volts }) => `${volts.toFixed(1)} V`).join(', ');
  return (
    <div
      role="img"
      aria-label={`Voltage profile along the run: ${known} of ${rows.length} points measured, supply ${supply.toFixed(1)} volts${losses ? `, lost beyond the usual: ${losses}` : ''}`}
    >
      <ComposedChart
        layout="vertical"
        width={width}
        height={height}
        data={data}
        margin={{ top: 0, bottom: 0, left: 6, right: 6 }}
        accessibilityLayer={false}
      >
        <XAxis type="number" domain={[0, supply]} hide />
        <YAxis type="number" dataKey="position" domain={[0, height]} hide />
        {[0, supply / 2, supply].map((volts) => (
          <ReferenceLine key={volts} x={volts} stroke="var(--line)" strokeWidth={1.5} />
        ))}
        <Area
          dataKey="gap"
          stroke="none"
          fill="var(--bad)"
          fillOpacity={0.28}
          connectNulls={false}
          isAnimationActive={false}
        />
        <Line
          dataKey="expected"
          stroke="var(--soft)"
          strokeWidth={1.5}
          strokeDasharray="4 3"
          dot={false}
          isAnimationActive={false}
        />
        <Line
          dataKey="measured"
          stroke="var(--ink)"
          strokeWidth={3.5}
          connectNulls
          dot={{ r: 4.5, fill: 'var(--ink)', stroke: 'var(--ink)' }}
          isAnimationActive={false}
        />
      </ComposedChart>
    </div>
  );
}
