/** What was found, what was seen after the repair, what is watched, and whether the job is closed. */
import { type BodyOf, dayWords, type FunctionStateName } from '../../format';
import { cellKey } from '../event';
import type { EventKindOf } from '../kind';
import {
  conditionName,
  ENDING_WORDS,
  functionName,
  OPENED_BY_WORDS,
  PHASE_WORDS,
  PROOF_ANSWER_WORDS,
  partName,
  STATE_WORDS,
} from '../names';
import { percentOfRating } from '../percentOfRating';

export const found: EventKindOf<BodyOf<'found'>> = {
  fold: (job, body, { id }) => {
    job.found = { ...body, eventId: id };
  },
  words: ({ fault, strength, cause, causeWords, openedBy }) =>
    `Found: ${fault} (${strength}); cause ${cause}${causeWords ? `: ${causeWords}` : ''}${openedBy ? `; the fuse opened: ${OPENED_BY_WORDS[openedBy]}` : ''}`,
  step: (row, { fault }) => ({ ...row, found: fault }),
  keeps: ({ form, strength }) => ({
    row: 'finding',
    partKind: form?.kind ?? null,
    mode: form?.mode ?? null,
    strength,
  }),
  standsBehind: true,
};

/** What a function should do after a repair, where the entry does not say it: entries of an earlier version. */
function expectedOf(unbidden: boolean, asks: boolean): FunctionStateName {
  return asks && unbidden ? 'dead' : 'works';
}

export const proof: EventKindOf<BodyOf<'proof'>> = {
  fold: (job, body, { id }) => {
    const { complaint } = job;
    const asks = complaint?.function === body.function && complaint.condition === body.condition;
    const should = body.expected ?? expectedOf(complaint?.state === 'on-when-off', asks);
    job.proofs.set(cellKey(body.function, body.condition), {
      eventId: id,
      state: body.state,
      right: body.state === should,
    });
    if (body.state === 'works' && job.afterSwap.get(body.function) === 'restored') {
      job.afterSwap.delete(body.function);
    }
  },
  words: (body, circuit) =>
    `Seen after repair: ${functionName(circuit, body.function)} ${STATE_WORDS[body.state]} (${conditionName(circuit, body.condition)})`,
  step: (row, body) => {
    const { asked } = row;
    const asks = asked?.function === body.function && asked.condition === body.condition;
    const should = body.expected ?? expectedOf(asked?.unbidden === true, asks);
    return {
      ...row,
      proofs: { ...row.proofs, [cellKey(body.function, body.condition)]: body.state === should },
    };
  },
  standsBehind: true,
};

export const fuseCurrent: EventKindOf<BodyOf<'fuse-current'>> = {
  fold: (job, body, { id }) => {
    job.currents.push({ ...body, eventId: id });
  },
  words: ({ fuse, phase, amps, ratingAmps, how }, circuit) =>
    `${partName(circuit, fuse)}: ${amps} A ${PHASE_WORDS[phase]}, ${how}, ${percentOfRating(amps, ratingAmps)} % of its ${ratingAmps} A`,
};

export const proofAnswer: EventKindOf<BodyOf<'proof-answer'>> = {
  fold: (job, body, { id }) => {
    job.answers.set(body.what, { ...body, eventId: id });
  },
  words: ({ what, answer, words, amps, volts }) =>
    [
      `After the repair, ${what.replace(/[-:]/g, ' ')}: ${PROOF_ANSWER_WORDS[answer]}`,
      ...(amps === undefined ? [] : [`${amps} A`]),
      ...(volts === undefined ? [] : [`${volts} V`]),
      ...(words ? [words] : []),
    ].join(', '),
};

export const watch: EventKindOf<BodyOf<'watch'>> = {
  fold: (job, body, { id }) => {
    job.watches.set(id, { ...body, eventId: id, done: null });
  },
  words: (body) => `Watch: ${body.words}${body.due ? `, due ${dayWords(body.due)}` : ''}`,
  keeps: ({ words, due, sort }) => ({ row: 'follow-up', words, due: due ?? null, sort: sort ?? 'watch' }),
  standsBehind: true,
};

export const watchSnoozed: EventKindOf<BodyOf<'watch-snoozed'>> = {
  fold: (job, { of, due, words }) => {
    const watched = job.watches.get(of);
    if (watched) job.watches.set(of, { ...watched, due, putOff: words });
    const temporary = job.temporaries.get(of);
    if (temporary) job.temporaries.set(of, { ...temporary, due });
  },
  words: ({ due, words }) => `Put off to ${dayWords(due)}: ${words}`,
  keeps: ({ of, due }) => ({ row: 'follow-up-later', of, due }),
  standsBehind: true,
};

export const watchDone: EventKindOf<BodyOf<'watch-done'>> = {
  fold: (job, { of, words }, { madeAt, person }) => {
    const watched = job.watches.get(of);
    if (watched) job.watches.set(of, { ...watched, done: { words, at: madeAt, person } });
  },
  words: (body) => `Watch item dealt with: ${body.words}`,
  keeps: ({ of }) => ({ row: 'follow-up-done', of }),
  standsBehind: true,
};

export const handedOver: EventKindOf<BodyOf<'handed-over'>> = {
  fold: (job, body, { id, person, madeAt }) => {
    job.handedOver = { to: body.to, words: body.words, eventId: id, by: person, at: madeAt };
  },
  words: ({ to, words }) => `Handed over to ${to}${words ? `: ${words}` : ''}`,
};

export const state: EventKindOf<BodyOf<'state'>> = {
  fold: (job, body, { person, madeAt }) => {
    job.state = body.state;
    job.askedBy = body.state === 'asked' ? { person, at: madeAt } : null;
    job.override = body.override ?? null;
    job.ending = body.ending ?? null;
  },
  words: (body) =>
    body.state === 'asked'
      ? `Asks for another’s word to close the job${body.ending ? `, ${ENDING_WORDS[body.ending]}` : ''}${body.override ? `: ${body.override}` : ''}`
      : body.state !== 'closed'
        ? `Job ${body.state}${body.override ? `: ${body.override}` : ''}`
        : body.ending
          ? `Job closed, ${ENDING_WORDS[body.ending]}: ${body.override ?? ''}`
          : `Job closed${body.override ? ` although something was missing: ${body.override}` : ''}`,
  step: (row, body) => ({ ...row, state: body.state }),
  // What a job leaves unsafe stands until it is worked on again.
  keeps: ({ state: to, ending, override }) => [
    { row: 'hazard-over', sort: 'left', of: null },
    ...(to !== 'closed' || ending === 'not-found' || !override
      ? []
      : [
          {
            row: 'hazard' as const,
            sort: 'left' as const,
            words:
              ending === 'made-safe'
                ? `Made safe, not repaired: ${override}`
                : `Closed although something was missing: ${override}`,
            due: null,
          },
        ]),
  ],
  standsBehind: true,
};
