import { isUuid } from '#core/format';
import { enter } from '@/access';
import { listenTo, type News } from '@/db/news';
import { enterRoom, isGone, isHere, vehicleOfJob } from '@/features/jobs/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';
import { streamTo } from '@/http/stream';
import { journal } from '@/journal/journal';

export const dynamic = 'force-dynamic';

/** News of a job to one page: entries, what it holds besides, who else is here, that the person at the key has answered. */
export const GET = door<{ id: string }>('see', async ({ actor, request, params }) => {
  const page = new URL(request.url).searchParams.get('page');
  const { id } = params;
  const vehicleId = isUuid(id) ? await vehicleOfJob(actor, id) : null;
  if (vehicleId === null) {
    return refuseWith(404, 'unknown-job', 'There is no such job in this shop.');
  }
  if (!isUuid(page)) return refuseWith(400, 'no-page', 'A page that listens says which it is.');
  return streamTo(request, (stream) => {
    /** What fails here is tried again at the next beat; the page goes on hearing. */
    const quietly = (work: Promise<unknown>) =>
      work.catch((err: unknown) => journal.warn({ err }, 'a page cannot be noted as present'));
    const room = enterRoom(id, {
      personId: actor.personId,
      say: (here) => stream.say('here', here),
      tooMany: () => {
        stream.say('too-many', {});
        stream.end();
      },
    });
    const heard = (news: News) => {
      if (news === 'here') room.changed();
      else stream.say(news, {});
    };
    const stop = listenTo(id, heard, [vehicleId, actor.shopId]);
    void quietly(isHere(actor, id, page).then(room.changed));
    // What came before it listened.
    stream.say('entries', {});
    stream.say('held', {});
    return {
      beat: () => {
        // Whoever was signed out, or has left the shop, hears nothing more.
        const still = async () => {
          const now = await enter(request.headers);
          if (now.kind === 'actor' && now.actor.shopId === actor.shopId) await isHere(actor, id, page);
          else stream.end();
        };
        void quietly(still());
      },
      over: () => {
        stop();
        room.leave();
        void isGone(id, page).catch(() => undefined);
      },
    };
  });
});
