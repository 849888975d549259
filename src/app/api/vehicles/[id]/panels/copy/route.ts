import { currentActor } from '@/features/shop/server';
import { copyToSister } from '@/features/vehicles/server';

/** Copies the boxes of another vehicle here, every fact unverified; back to the vehicle's page either way. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const form = await request.formData().catch(() => null);
  const from = String(form?.get('from') ?? '');
  const result = await copyToSister(await currentActor(), from, id);
  const problem = result.ok ? '' : `?problem=${encodeURIComponent(result.problems[0]?.message ?? '')}`;
  return new Response(null, { status: 303, headers: { location: `/vehicles/${id}${problem}` } });
}
