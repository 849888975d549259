import { BATCH_LIMIT_BYTES, checkBatch, isUuid, LARGEST_INTEGER } from '#core/format';
import { appendEvents, eventsAfter } from '@/features/jobs/server';
import { readJsonBody, refuse, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

const STATUS = {
  'unknown-job': 404,
  'id-taken': 409,
  'refused-by-database': 400,
  'needs-word': 400,
} as const;

/** Takes a batch of events; sending the same batch again changes nothing. */
export const POST = door('work', async ({ actor, request }) => {
  const body = await readJsonBody(request, BATCH_LIMIT_BYTES);
  if (!body.ok) return body.answer;
  const checked = checkBatch(body.value);
  if (!checked.ok) return refuse(400, checked.problems);
  const result = await appendEvents(actor, checked.value);
  if (result.ok) return Response.json({ stored: result.stored });
  const path = result.event ? `/events/${result.event}` : '';
  return refuse(STATUS[result.code], [{ code: result.code, path, message: result.message }]);
});

/** Entries of `job` with a sequence above `after`: what a page that holds the log so far has not seen. */
export const GET = door('see', async ({ actor, request }) => {
  const query = new URL(request.url).searchParams;
  const job = query.get('job') ?? '';
  const said = query.get('after') ?? '0';
  const after = Number(said);
  if (!isUuid(job) || !/^\d+$/.test(said) || after > LARGEST_INTEGER) {
    return refuseWith(400, 'no-place', 'Say the job, and after which entry.');
  }
  const events = await eventsAfter(actor, job, after);
  if (!events) return refuseWith(404, 'unknown-job', 'There is no such job in this shop.');
  return Response.json({ events });
});
