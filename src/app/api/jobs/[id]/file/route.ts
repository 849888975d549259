import { currentActor } from '@/access';
import { jobFile, jobFileName, loadJob } from '@/features/jobs/server';
import { answering, refuseWith } from '@/http/answers';
import { fileResponse } from '@/ui/fileResponse';

export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const job = await loadJob(await currentActor(), (await params).id);
    if (!job) return refuseWith(404, 'not-found', 'There is no such job in this shop.');
    return fileResponse(jobFile(job), jobFileName(job, job.events.at(-1)?.madeAt ?? job.openedAt, 'job'));
  });
}
