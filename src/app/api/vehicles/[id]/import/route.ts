import { FILE_LIMIT_BYTES, type ImportRequest, validateImport } from '#core/format';
import { importFile } from '@/features/vehicles/server';
import { readRequest } from '@/http/answers';
import { door } from '@/http/door';

/**
 * Takes one circuit or panel-set file, or a circuit as text; answers with a sentence, or with every problem at once.
 * With `base` it is joined with what was saved since, or refused where that cannot be done.
 */
export const POST = door<{ id: string }>('work', async ({ actor, request, params }) => {
  // The text of a file grows inside JSON, by its quotes and line ends at most.
  const input = await readRequest<ImportRequest>(request, validateImport, 2 * FILE_LIMIT_BYTES);
  if (!input.ok) return input.answer;
  const result = await importFile(actor, params.id, input.value);
  const changed = !result.ok && result.newest !== undefined;
  return Response.json(result, { status: result.ok ? 200 : changed ? 409 : 400 });
});
