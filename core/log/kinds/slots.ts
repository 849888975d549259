/** What was read and seen at the slots and plugs of a box. */
import type { BodyOf } from '../../format';
import { KEY_STATE_WORDS, type SlotEnd } from '../../limits';
import type { EventKindOf } from '../kind';
import { valueWords } from '../names';

/** Ends as the log names them: by side, or by place on the box as drawn. */
const END_WORDS: Readonly<Record<SlotEnd, string>> = {
  feed: 'feed side',
  load: 'load side',
  'load-2': 'second load side',
  first: 'upper or left end',
  second: 'lower or right end',
};

export const slotReading: EventKindOf<BodyOf<'slot-reading'>> = {
  fold: (job, { ends, panel, slot, state, fuseOut, testerProved, afterSeconds }, { id }) => {
    for (const { end, value } of ends) {
      job.slotReadings.push({
        id,
        panel,
        slot,
        end,
        value,
        state,
        fuseOut,
        testerProved,
        ...(afterSeconds === undefined ? {} : { afterSeconds }),
      });
    }
  },
  words: ({ slot, ends, state, fuseOut, afterSeconds }) => {
    const read = ends.map(({ end, value }) => `${END_WORDS[end]} ${valueWords(value)}`).join(', ');
    return `Slot ${slot}: ${read} (${KEY_STATE_WORDS[state].toLowerCase()}${fuseOut ? ', fuse out' : ''}${afterSeconds === undefined ? '' : `, ${Math.round(afterSeconds)} s after key off`})`;
  },
};

export const slotDrop: EventKindOf<BodyOf<'slot-drop'>> = {
  fold: (job, { kind: _kind, ...drop }, { id }) => {
    job.slotDrops.push({ ...drop, id });
  },
  words: ({ slot, volts, ratingAmps }) => {
    const read = Number((volts * 1000).toPrecision(4));
    return `Slot ${slot}: ${read} mV across its ${ratingAmps} A fuse, asleep`;
  },
};

export const slotState: EventKindOf<BodyOf<'slot-state'>> = {
  fold: (job, { kind: _kind, ...seen }, { id, madeAt, person }) => {
    job.slotStates.push({ ...seen, id, at: madeAt, person });
  },
  words: ({ slot, state, found, evidence }) => {
    const rating = found?.ratingAmps === undefined ? '' : `, ${found.ratingAmps} A found`;
    return `Slot ${slot}: ${state.replace('-', ' ')}${rating} (${evidence})`;
  },
  keeps: (body) => ({ row: 'slot-sighting', body }),
};

export const plugTag: EventKindOf<BodyOf<'plug-tag'>> = {
  fold: (job, body) => {
    job.tags.set(`${body.panel} ${body.plug}`, body);
  },
  words: (body) => `Tag “${body.tag}” on plug ${body.plug}`,
};

/** Damage at a box: as it was found, or done here. The two never mix. */
export const damage: EventKindOf<BodyOf<'damage'>> = {
  fold: (job, body, { id }) => {
    job.damages.push({ ...body, eventId: id });
  },
  words: (body) => `${body.when === 'as-found' ? 'Damage as found' : 'Damage done here'}: ${body.words}`,
};
