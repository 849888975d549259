import { copyToSister } from '@/features/vehicles/server';
import { readBytes } from '@/http/answers';
import { door } from '@/http/door';

/** Copies the boxes of another vehicle here, every fact unverified; back to the vehicle's page either way. */
export const POST = door<{ id: string }>('work', async ({ actor, request, params }) => {
  const { id } = params;
  const body = await readBytes(request, 16 * 1024, 'The form');
  if (!body.ok) return body.answer;
  const form = new URLSearchParams(new TextDecoder().decode(body.value));
  const from = form.get('from') ?? '';
  const result = await copyToSister(actor, from, id);
  const problem = result.ok ? '' : `?problem=${encodeURIComponent(result.problems[0]?.message ?? '')}`;
  return new Response(null, { status: 303, headers: { location: `/vehicles/${id}${problem}` } });
});
