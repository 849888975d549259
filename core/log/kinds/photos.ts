/** Photos and the marks on them. */
import type { BodyOf } from '../../format';
import type { EventKindOf } from '../kind';

export const photo: EventKindOf<BodyOf<'photo'>> = {
  fold: (job, body, { id }) => {
    job.photos.set(body.photo, { ...body, eventId: id, marks: [] });
  },
  words: (body) => `Photo ${body.when}${body.words ? `: ${body.words}` : ''}`,
};

export const photoMarks: EventKindOf<BodyOf<'photo-marks'>> = {
  fold: (job, { photo: of, marks }) => {
    const marked = job.photos.get(of);
    if (marked) job.photos.set(of, { ...marked, marks });
  },
  words: (body) => `Marks on a photo: ${body.marks.length}`,
};
