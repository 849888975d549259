/** Lines of earlier databases brought up to the present form, one step for each migration that gave a field another meaning. */

interface Step {
  /** The migration, counted from one, that lines of before it have not been through. */
  readonly before: number;
  readonly table: string;
  readonly up: (row: Record<string, unknown>) => Record<string, unknown>;
}

const STEPS: readonly Step[] = [
  {
    before: 17,
    table: 'people',
    up: (row) => (row.role === 'apprentice' ? { ...row, role: 'learner' } : row),
  },
];

/** Columns that were added since are left to what stands for nothing in them. */
export function upgradedLine(migration: number, table: string, line: string): string {
  const steps = STEPS.filter((step) => step.table === table && migration < step.before);
  if (steps.length === 0) return line;
  let row = JSON.parse(line) as Record<string, unknown>;
  for (const { up } of steps) row = up(row);
  return JSON.stringify(row);
}
