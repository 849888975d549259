import { jobPdf } from '@/features/jobs/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';
import { download } from '@/ui/fileResponse';

/** Most places on any sheet. */
const MOST = 65;

/** The labels of a job on plain label sheets: `sheet` says which, `from` the first free place on it. */
export const GET = door<{ id: string }>('see', async ({ actor, request, params }) => {
  const { searchParams } = new URL(request.url);
  const from = Number(searchParams.get('from') ?? 1);
  if (!Number.isInteger(from) || from < 1 || from > MOST) {
    return refuseWith(400, 'no-place', `The first free place is a whole number from 1 to ${MOST}.`);
  }
  const labels = { sheet: searchParams.get('sheet'), first: from };
  const pdf = await jobPdf(actor, params.id, 'labels', labels);
  if (!pdf) return refuseWith(404, 'not-found', 'There is no such job in this shop.');
  return download(new Uint8Array(pdf.bytes), 'application/pdf', pdf.name);
});
