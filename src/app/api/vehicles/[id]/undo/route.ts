import { validateUndo } from '#core/format';
import { startUndo } from '@/features/changes/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Opens a job in which a change of the vehicle is taken back. */
export const POST = door<{ id: string }>('work', async ({ actor, request, params }) => {
  const input = await readRequest<{ id: string; job: string; plan: string }>(request, validateUndo);
  if (!input.ok) return input.answer;
  const made = await startUndo(actor, params.id, input.value);
  return made.ok ? Response.json(made) : refuseWith(400, 'not-undone', made.message);
});
