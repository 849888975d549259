/** Repair or replace: what could be done, and what was chosen. */
import type { BodyOf } from '../../format';
import type { EventKindOf } from '../kind';
import { BOARD_CHECK_WORDS } from '../names';

export const option: EventKindOf<BodyOf<'option'>> = {
  fold: (job, body) => {
    job.options.set(body.option, body);
  },
  words: ({ name }) => `Could be done: ${name}`,
};

export const optionChosen: EventKindOf<BodyOf<'option-chosen'>> = {
  fold: (job, body, { madeAt }) => {
    job.chosen = { ...body, at: madeAt };
  },
  words: ({ by, words }) => `Chosen by ${by}${words ? `: ${words}` : ''}`,
};

export const boardCheck: EventKindOf<BodyOf<'board-check'>> = {
  fold: (job, body) => {
    job.boardChecks.set(body.check, body);
  },
  words: ({ check, state, words }) =>
    `Board repair, ${BOARD_CHECK_WORDS[check]}: ${state === 'in-order' ? '' : 'not possible here, '}${words}`,
};
