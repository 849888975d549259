/**
 * Which addresses are work views: those of one job. One static document serves them all (`src/app/(work)`), from what
 * the browser holds. All others are pages that the server makes. Whoever moves between the two loads a document;
 * whoever moves among work views only changes the address.
 */

export const JOB_VIEWS = [
  'job',
  'trace',
  'boxes',
  'wires',
  'combinations',
  'sums',
  'feed',
  'change',
  'sheet',
] as const;
export type JobView = (typeof JOB_VIEWS)[number];

/** The address of the static document itself; it is asked for by the server alone. */
export const WORK_DOCUMENT = '/job';

const ID = '[0-9a-fA-F]{8}(?:-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}';
const VIEW = 'trace|boxes|wires|combinations|sums|feed|change|sheet';
const OF_A_JOB = new RegExp(`^/jobs/(${ID})(?:/(${VIEW}))?/?$`);

/** The addresses of work views, as the server's configuration writes them. */
export const WORK_ADDRESSES = [`/jobs/:job(${ID})`, `/jobs/:job(${ID})/:view(${VIEW})`] as const;

export interface JobPlace {
  readonly jobId: string;
  readonly view: JobView;
}

/** The job and view that a path names; null where it is no work view. */
export function jobPlace(path: string): JobPlace | null {
  const [, jobId, view] = OF_A_JOB.exec(path) ?? [];
  return jobId === undefined ? null : { jobId: jobId.toLowerCase(), view: (view as JobView) ?? 'job' };
}

/** The document that shows a path. */
type Document = 'work' | 'pages' | 'file';

function documentOf(path: string): Document {
  if (path === '/api' || path.startsWith('/api/')) return 'file';
  return path === WORK_DOCUMENT || jobPlace(path) ? 'work' : 'pages';
}

/**
 * How a browser goes from one path to another: within the work document by its address alone, among pages by the
 * router, else by loading.
 */
export function wayTo(from: string, to: string): 'address' | 'router' | 'load' {
  const [path = ''] = to.split(/[?#]/);
  const target = documentOf(path === '' ? from : path);
  if (target === 'file' || target !== documentOf(from)) return 'load';
  return target === 'work' ? 'address' : 'router';
}
