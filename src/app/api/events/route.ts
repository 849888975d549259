import validateEventBatch from '#core/format/generated/eventBatch';
import type { JobEvent } from '#core/format/jobSchema';
import { readJson, validateWith } from '#core/format/problem';
import { appendEvents } from '@/features/jobs/server';
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
