import { jobPdf } from '@/features/jobs/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';
import { download } from '@/ui/fileResponse';

/** The hand-over sheet as PDF; with `for=customer` the customer's. */
export const GET = door<{ id: string }>('see', async ({ actor, request, params }) => {
  const what = new URL(request.url).searchParams.get('for') === 'customer' ? 'customer' : 'technician';
  const pdf = await jobPdf(actor, params.id, what);
  if (!pdf) return refuseWith(404, 'not-found', 'There is no such job in this shop.');
  return download(new Uint8Array(pdf.bytes), 'application/pdf', pdf.name);
});
