/** Notes, cautions that were read, and entries that are struck. */
import type { BodyOf } from '../../format';
import type { EventKindOf } from '../kind';

export const note: EventKindOf<BodyOf<'note'>> = {
  fold: (job, body) => {
    job.notes.push(body);
  },
  words: (body) => `Note: ${body.words}`,
};

export const cautionRead: EventKindOf<BodyOf<'caution-read'>> = {
  fold: (job, body) => {
    if (body.id) job.cautions.set(body.id, body);
  },
  words: ({ caution, notNow }) => `${notNow ? 'Not now' : 'Caution read'}: ${caution}`,
};

export const workPlace: EventKindOf<BodyOf<'work-place'>> = {
  fold: (job, { place }) => {
    job.workPlace = place;
  },
  words: ({ place }) => `Place of the work: ${place}`,
};

export const correction: EventKindOf<BodyOf<'correction'>> = {
  words: () => 'Struck an entry',
};
