import { validateBareRequest } from '#core/format';
import { currentActor } from '@/access';
import { newerMaps, takeNewest } from '@/features/jobs/server';
import { answering, readRequest, refuseWith } from '@/http/answers';

/** Whether boxes or circuits of the vehicle are newer than those that the job is traced on. */
export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const newer = await newerMaps(await currentActor(), (await params).id);
    return Response.json({ newer }, { headers: { 'Cache-Control': 'no-store' } });
  });
}

/** Takes them up. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const input = await readRequest<{ id: string }>(request, validateBareRequest);
    if (!input.ok) return input.answer;
    const taken = await takeNewest(await currentActor(), (await params).id, input.value.id);
    return taken.ok ? Response.json(taken) : refuseWith(400, 'not-taken', taken.message);
  });
}
