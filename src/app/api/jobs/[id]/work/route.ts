import { jobPdf } from '@/features/jobs/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';
import { download } from '@/ui/fileResponse';

/** The work order of a plan of the job as PDF. */
export const GET = door<{ id: string }>('see', async ({ actor, request, params }) => {
  const plan = new URL(request.url).searchParams.get('plan') ?? '';
  const pdf = await jobPdf(actor, params.id, 'work', { plan });
  if (!pdf) return refuseWith(404, 'not-found', 'There is no such job in this shop.');
  return download(new Uint8Array(pdf.bytes), 'application/pdf', pdf.name);
});
