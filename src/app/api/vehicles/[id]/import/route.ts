import { FILE_LIMIT_BYTES, type ImportRequest, validateImport } from '#core/format';
import { currentActor } from '@/access';
import { importFile } from '@/features/vehicles/server';
import { answering, readRequest } from '@/http/answers';

/**
 * Takes one circuit or panel-set file, or a circuit as text; answers with a sentence, or with every problem at once.
 * With `base` it is joined with what was saved since, or refused where that cannot be done.
 */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    // The text of a file grows inside JSON, by its quotes and line ends at most.
    const input = await readRequest<ImportRequest>(request, validateImport, 2 * FILE_LIMIT_BYTES);
    if (!input.ok) return input.answer;
    const result = await importFile(await currentActor(), (await params).id, input.value);
    const changed = !result.ok && result.newest !== undefined;
    return Response.json(result, { status: result.ok ? 200 : changed ? 409 : 400 });
  });
}
