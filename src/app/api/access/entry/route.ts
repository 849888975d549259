import { type EntryRequest, validateEntry } from '#core/format';
import { takeEntry } from '@/features/people/server';
import { readRequest } from '@/http/answers';
import { letIn } from '@/http/cookies';
import { open } from '@/http/door';

/** Takes a link that lets a person in, once. */
export const POST = open('The link holds a secret of its own; tries are counted.', async ({ request }) => {
  const input = await readRequest<EntryRequest>(request, validateEntry);
  if (!input.ok) return input.answer;
  return letIn(await takeEntry(request.headers, input.value));
});
