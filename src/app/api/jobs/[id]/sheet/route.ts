import { currentActor } from '@/access';
import { jobPdf } from '@/features/jobs/server';
import { answering, refuseWith } from '@/http/answers';
import { download } from '@/ui/fileResponse';

/** The hand-over sheet as PDF; with `for=customer` the customer's. */
export function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const what = new URL(request.url).searchParams.get('for') === 'customer' ? 'customer' : 'technician';
    const pdf = await jobPdf(await currentActor(), (await params).id, what);
    if (!pdf) return refuseWith(404, 'not-found', 'There is no such job in this shop.');
    return download(new Uint8Array(pdf.bytes), 'application/pdf', pdf.name);
  });
}
