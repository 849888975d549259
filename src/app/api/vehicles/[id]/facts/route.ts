import { currentActor } from '@/features/shop/server';
import { learnFact, readFact } from '@/features/vehicles/server';

/** Takes what is known of one part of a vehicle, as a new version of its circuits. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const fact = readFact(await request.text());
  if (!fact.ok) return Response.json({ message: fact.problems[0]?.message }, { status: 400 });
  const result = await learnFact(await currentActor(), (await params).id, fact.value);
  return Response.json(result, { status: result.ok ? 200 : 400 });
}
