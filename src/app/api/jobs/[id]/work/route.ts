import { currentActor } from '@/access';
import { jobPdf } from '@/features/jobs/server';
import { answering, refuseWith } from '@/http/answers';
import { download } from '@/ui/fileResponse';

/** The work order of a plan of the job as PDF. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const plan = new URL(request.url).searchParams.get('plan') ?? '';
    const pdf = await jobPdf(await currentActor(), (await params).id, 'work', { plan });
    if (!pdf) return refuseWith(404, 'not-found', 'There is no such job in this shop.');
    return download(new Uint8Array(pdf.bytes), 'application/pdf', pdf.name);
  });
}
