import { validateCarryOut } from '#core/format';
import { carryOutPlan } from '@/features/changes/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Carries a plan of the job out: new versions of circuits and boxes, and its entry in the ledger. */
export const POST = door<{ id: string }>('work', async ({ actor, request, params }) => {
  const input = await readRequest<{ id: string; plan: string }>(request, validateCarryOut);
  if (!input.ok) return input.answer;
  const made = await carryOutPlan(actor, params.id, input.value);
  return made.ok ? Response.json(made) : refuseWith(400, 'not-carried-out', made.message);
});
