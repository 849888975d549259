import { learnOnJob } from '@/features/jobs/server';
import { currentActor } from '@/features/shop/server';
import { readFact } from '@/features/vehicles/server';

/** Takes what was learned of one part while tracing. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const fact = readFact(await request.text());
  if (!fact.ok) return Response.json({ message: fact.problems[0]?.message }, { status: 400 });
  const result = await learnOnJob(await currentActor(), (await params).id, fact.value);
  return Response.json(result, { status: result.ok ? 200 : 400 });
}
