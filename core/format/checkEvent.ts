/** Entries of a job's log against the one schema: where they are made, and where they arrive. */
import { checkPlan } from './checkPlan';
import validateJobEvent from './generated/jobEvent';
import type { JobEvent } from './jobSchema';
import { type Checked, fail, ProblemList, validateWith } from './problem';
import { ENTRY_VERSION } from './upgrade/entries';

/** Most entries that are taken at once. */
const BATCH_LIMIT = 500;
/** Largest batch that is read at all, bytes. */
export const BATCH_LIMIT_BYTES = 1024 * 1024;

export function checkEvent(data: unknown): Checked<JobEvent> {
  const version = (data as { version?: unknown } | null)?.version;
  if (typeof version === 'number' && version > ENTRY_VERSION) {
    return fail(
      'newer-version',
      '/version',
      `The entry has version ${version}; this server reads up to version ${ENTRY_VERSION}. Update the server; the entry is kept until then.`,
    );
  }
  return validateWith<JobEvent>(validateJobEvent, data);
}

/** The same where an entry arrives: a plan is looked at whole. */
function checkArrived(data: unknown): Checked<JobEvent> {
  const checked = checkEvent(data);
  if (!checked.ok || checked.value.body.kind !== 'plan') return checked;
  const plan = checkPlan(checked.value.body.plan);
  if (plan.ok) return checked;
  return {
    ok: false,
    problems: plan.problems.map((one) => ({ ...one, path: `/body/plan${one.path}` })),
  };
}

/**
 * A batch as it arrives: `{ events: [...] }`. Entries are checked one by one, each problem under the entry's own id;
 * where there are more problems than anyone reads, the rest is not looked at.
 */
export function checkBatch(data: unknown): Checked<readonly JobEvent[]> {
  const { events, ...rest } = (data ?? {}) as { events?: unknown };
  if (!Array.isArray(events) || Object.keys(rest).length > 0) {
    return fail('no-batch', '', 'A batch is {"events": [...]} and nothing else.');
  }
  if (events.length === 0 || events.length > BATCH_LIMIT) {
    return fail(
      'batch-size',
      '/events',
      `A batch has 1 to ${BATCH_LIMIT} entries; this one has ${events.length}.`,
    );
  }
  const problems = new ProblemList();
  for (const [index, event] of events.entries()) {
    const checked = checkArrived(event);
    if (checked.ok) continue;
    const id = (event as { id?: unknown } | null)?.id;
    const name = typeof id === 'string' && id.length <= 80 ? id : String(index);
    for (const one of checked.problems) problems.add(one.code, `/events/${name}${one.path}`, one.message);
    if (problems.isFull) break;
  }
  return problems.isEmpty ? { ok: true, value: events as JobEvent[] } : { ok: false, problems: problems.all };
}
