import { validateUndo } from '#core/format';
import { currentActor } from '@/access';
import { startUndo } from '@/features/changes/server';
import { answering, readRequest, refuseWith } from '@/http/answers';

/** Opens a job in which a change of the vehicle is taken back. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const input = await readRequest<{ id: string; job: string; plan: string }>(request, validateUndo);
    if (!input.ok) return input.answer;
    const made = await startUndo(await currentActor(), (await params).id, input.value);
    return made.ok ? Response.json(made) : refuseWith(400, 'not-undone', made.message);
  });
}
