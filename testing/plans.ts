/** What PostgreSQL does for the queries of a piece of work: rows that it reads against rows that it gives. */
import pg from 'pg';
import { PLANNER } from '../src/db/client';

export interface Plan {
  readonly text: string;
  /** Rows that the query gives. */
  readonly gives: number;
  /** Rows that tables and indexes gave on the way, those that a filter threw away included. */
  readonly reads: number;
  /** It only counts: one row, made of all that it reads. */
  readonly counts: boolean;
  readonly nodes: readonly string[];
}

interface Node {
  readonly 'Node Type': string;
  readonly 'Relation Name'?: string;
  readonly 'Index Name'?: string;
  readonly 'Actual Rows': number;
  readonly 'Actual Loops': number;
  readonly 'Rows Removed by Filter'?: number;
  readonly 'Rows Removed by Index Recheck'?: number;
  readonly Plans?: readonly Node[];
}

const all = (node: Node): Node[] => [node, ...(node.Plans ?? []).flatMap(all)];

/** Records the queries that a piece of work sends, and asks for the plan of each that reads. */
export async function plansOf(work: () => Promise<unknown>): Promise<Plan[]> {
  const sent: { text: string; values: unknown[] }[] = [];
  const real = pg.Client.prototype.query;
  const spy = function (this: pg.Client, ...args: unknown[]) {
    const [config, values] = args as [string | { text: string; values?: unknown[] }, unknown[] | undefined];
    if (typeof config === 'object' && config !== null && 'text' in config) {
      sent.push({ text: config.text, values: (values ?? config.values ?? []) as unknown[] });
    }
    return (real as (...args: unknown[]) => unknown).apply(this, args);
  };
  pg.Client.prototype.query = spy as typeof real;
  try {
    await work();
  } finally {
    pg.Client.prototype.query = real;
  }
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL, options: PLANNER });
  await client.connect();
  try {
    const plans: Plan[] = [];
    for (const { text, values } of sent.filter((one) => /^\s*select/i.test(one.text))) {
      const { rows } = await client.query(`explain (analyze, format json, timing off) ${text}`, values);
      plans.push(planOf(text, rows[0]['QUERY PLAN'][0].Plan));
    }
    return plans;
  } finally {
    await client.end();
  }
}

function planOf(text: string, top: Node): Plan {
  const scans = all(top).filter((node) => node['Node Type'].includes('Scan'));
  // The bitmap of an index names its rows for the scan of the table, which counts them.
  const reading = scans.filter((node) => node['Node Type'] !== 'Bitmap Index Scan');
  const reads = reading.reduce((sum, node) => {
    const removed = (node['Rows Removed by Filter'] ?? 0) + (node['Rows Removed by Index Recheck'] ?? 0);
    return sum + (node['Actual Rows'] + removed) * node['Actual Loops'];
  }, 0);
  const counts =
    top['Node Type'] === 'Aggregate' && top['Actual Rows'] === 1 && /^select count\(\*\)/.test(text);
  return {
    text,
    gives: top['Actual Rows'],
    reads,
    counts,
    nodes: scans.map((node) => `${node['Node Type']} ${node['Index Name'] ?? node['Relation Name'] ?? ''}`),
  };
}
