/** What every route answers, whatever it does: to strangers, to whoever has gone, and where it fails itself. */
import { journal } from '@/journal/journal';
import { answering } from './answers';

const written = jest.spyOn(journal, 'error').mockImplementation(() => undefined);
beforeEach(() => written.mockClear());

const HERE = { host: '127.0.0.1:4012' };
const asked = (headers: Record<string, string> = HERE, signal?: AbortSignal) =>
  new Request('http://127.0.0.1:4012/api/events', { headers, ...(signal ? { signal } : {}) });
const fails = (error: unknown) => async (): Promise<Response> => {
  throw error;
};

test('a name that was made to point here, and a page of another site, are refused before anything is done', async () => {
  const work = jest.fn(async () => new Response('done'));
  for (const headers of [
    { host: 'rebound.test' },
    { ...HERE, origin: 'https://evil.example' },
    { ...HERE, 'sec-fetch-site': 'cross-site' },
  ]) {
    const answer = await answering(asked(headers), work);
    expect(answer.status).toBe(403);
    expect(await answer.json()).toMatchObject({ message: expect.stringMatching(/application/) });
  }
  expect(work).not.toHaveBeenCalled();
  expect((await answering(asked(), work)).status).toBe(200);
});

test('whoever is gone before the question was whole, or before its answer, is no failure of the server', async () => {
  const aborted = Object.assign(new Error('aborted'), { code: 'ECONNRESET' });
  expect((await answering(asked(), fails(aborted))).status).toBe(499);
  const gone = AbortSignal.abort();
  expect((await answering(asked(HERE, gone), fails(new Error('nobody reads this')))).status).toBe(499);
  expect(written).not.toHaveBeenCalled();
});

test('everything else that fails is to be tried again, and is written down', async () => {
  const reset = Object.assign(new Error('read ECONNRESET'), { code: 'ECONNRESET' });
  for (const error of [new Error('out of room'), reset]) {
    expect((await answering(asked(), fails(error))).status).toBe(503);
  }
  expect(written).toHaveBeenCalledTimes(2);
});
