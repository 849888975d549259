import { jobFile, jobFileName, loadJob } from '@/features/jobs/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';
import { fileResponse } from '@/ui/fileResponse';

export const GET = door<{ id: string }>('see', async ({ actor, params }) => {
  const job = await loadJob(actor, params.id);
  if (!job) return refuseWith(404, 'not-found', 'There is no such job in this shop.');
  return fileResponse(jobFile(job), jobFileName(job, job.events.at(-1)?.madeAt ?? job.openedAt, 'job'));
});
