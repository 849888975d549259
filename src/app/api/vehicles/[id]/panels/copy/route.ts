import { currentActor } from '@/access';
import { copyToSister } from '@/features/vehicles/server';
import { answering, readBytes } from '@/http/answers';

/** Copies the boxes of another vehicle here, every fact unverified; back to the vehicle's page either way. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const { id } = await params;
    const body = await readBytes(request, 16 * 1024, 'The form');
    if (!body.ok) return body.answer;
    const form = new URLSearchParams(new TextDecoder().decode(body.value));
    const from = form.get('from') ?? '';
    const result = await copyToSister(await currentActor(), from, id);
    const problem = result.ok ? '' : `?problem=${encodeURIComponent(result.problems[0]?.message ?? '')}`;
    return new Response(null, { status: 303, headers: { location: `/vehicles/${id}${problem}` } });
  });
}
