import { createHash } from 'node:crypto';
import { heldJob, loadJobAlone, surveyedSlots } from '@/features/jobs/server';
import { hourlyRate, learnedPriors } from '@/features/shop/server';
import { stockOf } from '@/features/stock/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** A job without its log, as a browser holds it. A browser that has it as it is gets no second copy. */
export const GET = door<{ id: string }>('see', async ({ actor, request, params }) => {
  const [job, priors, stock, rate] = await Promise.all([
    loadJobAlone(actor, params.id),
    learnedPriors(actor),
    stockOf(actor),
    hourlyRate(actor),
  ]);
  if (!job) return refuseWith(404, 'unknown-job', 'There is no such job in this shop.');
  const surveyed = await surveyedSlots(actor, job.vehicle.id, job.id);
  const body = JSON.stringify({ ...heldJob(job, priors), stock, rate, surveyed });
  const tag = `"${createHash('sha256').update(body).digest('base64url').slice(0, 22)}"`;
  const headers = {
    ETag: tag,
    'Cache-Control': 'private, no-cache',
    'Content-Type': 'application/json; charset=utf-8',
  };
  const known = request.headers.get('if-none-match')?.replace(/^W\//, '') === tag;
  return known ? new Response(null, { status: 304, headers }) : new Response(body, { headers });
});
