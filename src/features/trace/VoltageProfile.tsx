'use client';

import { Line, LineChart, ReferenceLine, XAxis, YAxis } from 'recharts';
import type { RunRow } from './RunDrawing';

/** Volts against position, drawn beside the run and in step with it: the eye sees where the volts are lost. */
export function VoltageProfile({
  rows,
  top,
  width,
  height,
}: {
  rows: readonly RunRow[];
  top: number;
  width: number;
  height: number;
}) {
  const data = rows.map((row, index) => ({
    position: index,
    expected: row.expected,
    measured: row.measured,
  }));
  const highest = Math.max(1, ...rows.map((row) => Math.max(row.expected, row.measured ?? 0)));
  const known = rows.filter((row) => row.measured !== null).length;
  return (
    <div
      role="img"
      aria-label={`Voltage profile along the run: ${known} of ${rows.length} points measured, ${highest.toFixed(1)} volts at the most`}
    >
      <LineChart
        layout="vertical"
        width={width}
        height={height}
        data={data}
        margin={{ top, bottom: top, left: 8, right: 8 }}
        accessibilityLayer={false}
      >
        <XAxis type="number" domain={[0, highest * 1.05]} hide />
        <YAxis type="number" dataKey="position" domain={[0, rows.length - 1]} hide />
        <ReferenceLine x={0} stroke="var(--line)" />
        <Line
          dataKey="expected"
          stroke="var(--soft)"
          strokeWidth={1.5}
          strokeDasharray="3 3"
          dot={false}
          isAnimationActive={false}
        />
        <Line
          dataKey="measured"
          stroke="var(--ink)"
          strokeWidth={3}
          connectNulls
          dot={{ r: 4, fill: 'var(--ink)', stroke: 'var(--ink)' }}
          isAnimationActive={false}
        />
      </LineChart>
    </div>
  );
}
