import { readJson } from '#core/format/problem';
import { isUuid } from '#core/format/uuid';
import { currentActor, resetLearning } from '@/features/shop/server';

/** Starts the counts of the shop's own faults anew, under the id that the client made. */
export async function POST(request: Request) {
  const json = readJson(await request.text());
  const { id } = ((json.ok ? json.value : null) ?? {}) as Record<string, unknown>;
  if (!isUuid(id)) {
    return Response.json({ message: 'The reset needs an id.' }, { status: 400 });
  }
  await resetLearning(await currentActor(), id);
  return Response.json({ id });
}
