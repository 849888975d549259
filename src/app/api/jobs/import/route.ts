import { FILE_LIMIT_BYTES, type ImportRequest, validateImport } from '#core/format';
import { importJob } from '@/features/jobs/server';
import { readRequest } from '@/http/answers';
import { door } from '@/http/door';

/** Takes one job file; answers with the id of the job and a sentence, or with every problem at once. */
export const POST = door('work', async ({ actor, request }) => {
  // The text of a file grows inside JSON, by its quotes and line ends at most.
  const input = await readRequest<ImportRequest>(request, validateImport, 2 * FILE_LIMIT_BYTES);
  if (!input.ok) return input.answer;
  const result = await importJob(actor, input.value);
  return Response.json(result, { status: result.ok ? 200 : 400 });
});
