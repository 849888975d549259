/** What was found, how it was repaired, what was seen afterwards, and whether the job is closed. */
import type { BodyOf, FunctionStateName } from '../../format';
import { cellKey } from '../event';
import type { EventKindOf } from '../kind';
import { conditionName, ENDING_WORDS, functionName, STATE_WORDS } from '../names';

export const found: EventKindOf<BodyOf<'found'>> = {
  fold: (job, body, { id }) => {
    job.found = { ...body, eventId: id };
  },
  words: ({ fault, strength, cause, causeWords }) =>
    `Found: ${fault} (${strength}); cause ${cause}${causeWords ? `: ${causeWords}` : ''}`,
  step: (row, { fault }) => ({ ...row, found: fault }),
  keeps: ({ form, strength }) => ({
    row: 'finding',
    partKind: form?.kind ?? null,
    mode: form?.mode ?? null,
    strength,
  }),
  standsBehind: true,
};

export const repair: EventKindOf<BodyOf<'repair'>> = {
  fold: (job, body) => {
    job.repairs.push(body);
    job.proofs.clear();
  },
  words: (body) => `Repair: ${body.words}${body.temporary ? ' (temporary)' : ''}`,
  step: (row) => ({ ...row, repaired: true, proofs: {} }),
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

export const watch: EventKindOf<BodyOf<'watch'>> = {
  fold: (job, body, { id }) => {
    job.watches.set(id, { ...body, eventId: id, done: null });
  },
  words: (body) => `Watch: ${body.words}${body.due ? `, due ${body.due}` : ''}`,
  keeps: ({ words, due }) => ({ row: 'follow-up', words, due: due ?? null }),
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

export const state: EventKindOf<BodyOf<'state'>> = {
  fold: (job, body) => {
    job.state = body.state;
    job.override = body.override ?? null;
    job.ending = body.ending ?? null;
  },
  words: (body) =>
    body.state !== 'closed'
      ? `Job ${body.state}`
      : body.ending
        ? `Job closed, ${ENDING_WORDS[body.ending]}: ${body.override ?? ''}`
        : `Job closed${body.override ? ` although something was missing: ${body.override}` : ''}`,
  step: (row, body) => ({ ...row, state: body.state }),
  standsBehind: true,
};
