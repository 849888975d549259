import { listenTo } from '@/db/news';
import { atTheKey, HELPER_COOKIE } from '@/features/helper/server';
import { refuseWith } from '@/http/answers';
import { cookieOf } from '@/http/cookies';
import { open } from '@/http/door';
import { streamTo } from '@/http/stream';

export const dynamic = 'force-dynamic';

/** Tells the phone at the key that something else is asked for. */
export const GET = open(
  'It answers a phone that has joined, by the secret that the phone carries.',
  async ({ request }) => {
    const token = cookieOf(request.headers, HELPER_COOKIE);
    const here = token === null ? null : await atTheKey(token);
    if (token === null || !here) return refuseWith(404, 'over', 'Nobody is needed at the key at the moment.');
    return streamTo(request, (stream) => {
      const stop = listenTo(here.jobId, (news) => {
        if (news === 'helper') stream.say('asked', {});
      });
      stream.say('asked', {});
      return {
        beat: () => {
          void atTheKey(token).then(
            (now) => (now ? undefined : stream.end()),
            () => stream.end(),
          );
        },
        over: stop,
      };
    });
  },
);
