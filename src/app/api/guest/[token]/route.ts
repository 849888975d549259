import { guestOf, jobPdf } from '@/features/jobs/server';
import { refuseWith } from '@/http/answers';
import { open } from '@/http/door';
import { download } from '@/ui/fileResponse';

/** The sheet that a link shows, as PDF. */
export const GET = open<{ token: string }>(
  'A guest has no account: the link holds a secret of its own.',
  async ({ params }) => {
    const guest = await guestOf(params.token);
    const pdf = guest ? await jobPdf(guest.reader, guest.jobId, guest.sheet) : null;
    if (!pdf) return refuseWith(404, 'no-guest', 'This link leads nowhere: it has ended.');
    return download(new Uint8Array(pdf.bytes), 'application/pdf', pdf.name);
  },
);
