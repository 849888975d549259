/** A change that is planned, done step by step, and carried out or taken back. */
import type { BodyOf } from '../../format';
import type { EventKindOf } from '../kind';

export const plan: EventKindOf<BodyOf<'plan'>> = {
  fold: (job, { plan: stated }, { id }) => {
    const known = job.plans.get(stated.id);
    job.plans.set(stated.id, {
      plan: stated,
      eventId: id,
      steps: known?.steps ?? new Map(),
      kept: known?.kept ?? new Map(),
      ended: known?.ended ?? null,
    });
  },
  words: ({ plan: { name, edits } }) =>
    `Plan: ${name}, ${edits.length} ${edits.length === 1 ? 'edit' : 'edits'}`,
};

export const planStep: EventKindOf<BodyOf<'plan-step'>> = {
  fold: (job, body, { id }) => {
    const one = job.plans.get(body.plan);
    if (!one) return;
    if (body.how === 'back') one.steps.delete(body.step);
    else one.steps.set(body.step, { ...body, how: body.how, eventId: id });
  },
  words: ({ words, how, reason, value, watched }) => {
    const said =
      how === 'done'
        ? 'Done'
        : how === 'wrong'
          ? 'Not as it should be'
          : how === 'back'
            ? 'Taken back'
            : 'Passed';
    return [
      `${said}: ${words}`,
      value === undefined ? '' : `read ${value}`,
      watched && `watched by ${watched}`,
      reason && `because: ${reason}`,
    ]
      .filter(Boolean)
      .join(' – ');
  },
  keeps: ({ how, leaves, of }) => {
    if (how === 'done' && leaves) return { row: 'hazard', sort: 'half-done', words: leaves, due: null };
    return how === 'back' && of ? { row: 'hazard-over', sort: 'half-done', of } : [];
  },
  standsBehind: true,
};

export const findingKept: EventKindOf<BodyOf<'finding-kept'>> = {
  fold: (job, body) => {
    job.plans.get(body.plan)?.kept.set(body.finding, body);
  },
  words: ({ words, reason }) => `Stays although the plan shows it: ${words} Because: ${reason}`,
};

export const planEnded: EventKindOf<BodyOf<'plan-ended'>> = {
  fold: (job, body, { id }) => {
    const one = job.plans.get(body.plan);
    if (one) job.plans.set(body.plan, { ...one, ended: { ...body, eventId: id } });
  },
  words: ({ how, name }) =>
    how === 'carried'
      ? `Carried out: ${name}`
      : how === 'taken-back'
        ? `Taken back: ${name}`
        : `Given up, nothing of it done: ${name}`,
  step: (row, { how }) => (how === 'carried' ? { ...row, repaired: true } : row),
  keeps: () => ({ row: 'hazard-over', sort: 'half-done', of: null }),
  standsBehind: true,
};
