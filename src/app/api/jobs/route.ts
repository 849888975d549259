import { readJson } from '#core/format/problem';
import { openJob } from '@/features/jobs/server';
import { currentActor } from '@/features/shop/server';

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** Opens a job under the id that the client made. */
export async function POST(request: Request) {
  const json = readJson(await request.text());
  if (!json.ok) return Response.json({ message: json.problems[0]?.message }, { status: 400 });
  const { id, vehicleId, title } = (json.value ?? {}) as Record<string, unknown>;
  if (typeof id !== 'string' || !UUID.test(id) || typeof vehicleId !== 'string' || !UUID.test(vehicleId)) {
    return Response.json({ message: 'The vehicle must be chosen from the list.' }, { status: 400 });
  }
  if (typeof title !== 'string' || title.trim() === '' || title.length > 160) {
    return Response.json(
      { message: 'Say in a few words what fails (at most 160 characters).' },
      { status: 400 },
    );
  }
  const result = await openJob(await currentActor(), { id, vehicleId, title: title.trim() });
  return result.ok ? Response.json({ id }) : Response.json({ message: result.message }, { status: 404 });
}
