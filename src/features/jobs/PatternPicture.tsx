import { functionRuns } from '#core/diagnosis';
import { runStrip, type Strip } from '#core/diagram';
import { CircuitModel } from '#core/network';
import { circuitOfPattern, PATTERNS } from '#core/notation';

/** The run of every pattern, worked out once: which parts lie in it, and in which order. */
function stripsOfPatterns(): ReadonlyMap<string, Strip> {
  return new Map(
    PATTERNS.flatMap((pattern): [string, Strip][] => {
      const { circuit, condition } = circuitOfPattern(pattern, {
        load: 'Load',
        kind: 'lamp',
        nominalVolts: 12,
      });
      const [run] = functionRuns(new CircuitModel(circuit), 'failed', condition);
      if (!run) return [];
      const parts = run.stations.map(({ part }) => part);
      return [[pattern.id, runStrip(circuit, { stops: run.stops, parts })]];
    }),
  );
}

/** Screen pixels to a point of the drawing. */
const SCALE = 0.62;

let strips: ReadonlyMap<string, Strip> | null = null;

/** What a pattern looks like, small: from the battery's side on the left to earth on the right. */
export function PatternPicture({ pattern }: { pattern: string }) {
  strips ??= stripsOfPatterns();
  const strip = strips.get(pattern);
  if (!strip) return null;
  const height = strip.bottom - strip.top;
  return (
    <svg
      viewBox={`-6 ${strip.top - 2} ${strip.width + 12} ${height + 4}`}
      className="mb-1 block h-auto max-w-full"
      style={{ width: (strip.width + 12) * SCALE }}
      aria-hidden="true"
      fill="none"
      stroke="var(--ink)"
      strokeWidth="1.6"
    >
      <line x1="-6" x2={strip.width + 6} y1="0" y2="0" strokeWidth="1" stroke="var(--soft)" />
      {strip.parts.map(({ part, transform, paths, letters }) => (
        <g key={part}>
          <g transform={transform}>
            {paths
              .filter(({ when }) => when !== 'moved')
              .map(({ path, filled, dashed }) => (
                <path
                  key={path}
                  d={path}
                  fill={filled ? 'var(--ink)' : 'none'}
                  strokeDasharray={dashed ? '3 2' : undefined}
                />
              ))}
          </g>
          {letters.map(({ text, x, y }) => (
            <text
              key={`${x} ${y}`}
              x={x}
              y={y + 4}
              fontSize="11"
              textAnchor="middle"
              fill="var(--ink)"
              stroke="none"
            >
              {text}
            </text>
          ))}
        </g>
      ))}
    </svg>
  );
}
