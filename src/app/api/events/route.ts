import validateEventBatch from '#core/format/generated/eventBatch';
import type { JobEvent } from '#core/format/jobSchema';
import { readJson, validateWith } from '#core/format/problem';
import { isUuid } from '#core/format/uuid';
import { appendEvents, eventsAfter } from '@/features/jobs/server';
import { currentActor } from '@/features/shop/server';

/** Takes a batch of events; sending the same batch again changes nothing. */
export async function POST(request: Request) {
  const json = readJson(await request.text());
  if (!json.ok) return Response.json({ problems: json.problems }, { status: 400 });
  const checked = validateWith<{ events: JobEvent[] }>(validateEventBatch, json.value);
  if (!checked.ok) return Response.json({ problems: checked.problems }, { status: 400 });
  const result = await appendEvents(await currentActor(), checked.value.events);
  if (!result.ok) {
    const problems = [{ code: result.code, path: '', message: result.message }];
    return Response.json({ problems }, { status: result.code === 'unknown-job' ? 404 : 409 });
  }
  return Response.json({ stored: result.stored });
}

/** Entries of `job` with a sequence above `after`: what a page that holds the log so far has not seen. */
export async function GET(request: Request) {
  const query = new URL(request.url).searchParams;
  const job = query.get('job') ?? '';
  const after = Number(query.get('after') ?? 0);
  if (!isUuid(job) || !Number.isInteger(after) || after < 0) {
    return Response.json({ message: 'Say the job, and after which entry.' }, { status: 400 });
  }
  const events = await eventsAfter(await currentActor(), job, after);
  if (!events) return Response.json({ message: 'There is no such job in this shop.' }, { status: 404 });
  return Response.json({ events });
}
