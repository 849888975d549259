import { jobFile, loadJob } from '@/features/jobs/server';
import { currentActor } from '@/features/shop/server';
import { fileResponse } from '@/ui/fileResponse';

export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const job = await loadJob(await currentActor(), (await params).id);
  if (!job) return Response.json({ message: 'There is no such job in this shop.' }, { status: 404 });
  return fileResponse(jobFile(job), `job-${job.title}`);
}
