import { validateCarryOut } from '#core/format';
import { currentActor } from '@/access';
import { carryOutPlan } from '@/features/changes/server';
import { answering, readRequest, refuseWith } from '@/http/answers';

/** Carries a plan of the job out: new versions of circuits and boxes, and its entry in the ledger. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const input = await readRequest<{ id: string; plan: string }>(request, validateCarryOut);
    if (!input.ok) return input.answer;
    const made = await carryOutPlan(await currentActor(), (await params).id, input.value);
    return made.ok ? Response.json(made) : refuseWith(400, 'not-carried-out', made.message);
  });
}
