/** What hands do: isolate, begin work, read and cut wires, exchange relays. */
import { CELL_WORDS } from '../../diagnosis';
import type { BodyOf } from '../../format';
import { STEP_WORDS, TASK_WORDS, TASKS } from '../../hands';
import { KEY_STATE_WORDS } from '../../limits';
import type { EventKindOf } from '../kind';
import { partName, valueWords } from '../names';

export const isolation: EventKindOf<BodyOf<'isolation'>> = {
  fold: (job, { step, done }) => {
    if (done) job.isolated.add(step);
    else job.isolated.delete(step);
  },
  words: (body) => `${body.done ? 'Isolated' : 'No longer isolated'}: ${STEP_WORDS[body.step].toLowerCase()}`,
};

export const taskBegun: EventKindOf<BodyOf<'task-begun'>> = {
  fold: (job, body) => {
    job.begun.push(body);
  },
  words: (body, circuit) => {
    const task = TASKS.find((one) => one === body.task);
    const on = body.wire ? `, wire ${body.wire}` : body.part ? ` ${partName(circuit, body.part)}` : '';
    const blocked = body.task === 'bridge' ? 'its feed not read first' : 'not isolated';
    return `Begun: ${task ? TASK_WORDS[task].toLowerCase() : body.task}${on}${body.override ? `, ${blocked} (${body.override})` : ''}`;
  },
};

export const wireReading: EventKindOf<BodyOf<'wire-reading'>> = {
  fold: (job, { kind: _kind, ...read }, { id }) => {
    job.wireReadings.push({ ...read, id });
  },
  words: (body, circuit) =>
    `${partName(circuit, body.wire)}, end ${body.end}: ${valueWords(body.value)} (${KEY_STATE_WORDS[body.state].toLowerCase()})`,
};

export const swapped: EventKindOf<BodyOf<'swapped'>> = {
  fold: (job, body, { id }) => {
    job.swaps.set(id, { ...body, eventId: id });
    for (const one of [body.one, body.other]) job.exchanged.add(one);
    for (const one of body.functions) {
      job.afterSwap.set(one, 'swapped');
      // What was seen before says nothing about the relays as they stand afterwards.
      for (const key of [...job.proofs.keys()]) if (key.startsWith(`${one}|`)) job.proofs.delete(key);
    }
  },
  words: (body, circuit) => `Exchanged: ${partName(circuit, body.one)} and ${partName(circuit, body.other)}`,
  step: (row, { functions }) => ({
    ...row,
    proofs: Object.fromEntries(
      Object.entries(row.proofs).filter(([key]) => !functions.some((one) => key.startsWith(`${one}|`))),
    ),
  }),
  keeps: ({ one, other }) => ({
    row: 'hazard',
    sort: 'exchanged',
    words: `${one} and ${other} stand exchanged`,
    due: null,
  }),
  standsBehind: true,
};

export const partInPlace: EventKindOf<BodyOf<'part-in-place'>> = {
  fold: (job, { part, sits }) => {
    job.inPlace.set(part, sits);
  },
  words: ({ part, sits }, circuit) =>
    sits === 'own'
      ? `${partName(circuit, part)} sits in its own place again`
      : `The known good part stays in the place of ${partName(circuit, part)}`,
};

export const unitTried: EventKindOf<BodyOf<'unit-tried'>> = {
  fold: (job, { unit, cell, state }) => {
    const name = unit.trim();
    job.units.set(name, { ...job.units.get(name), [cell]: state });
  },
  words: ({ unit, cell, state }) => `${unit}, ${CELL_WORDS[cell]}: ${state}`,
};

export const swapRestored: EventKindOf<BodyOf<'swap-restored'>> = {
  fold: (job, { of }) => {
    for (const one of job.swaps.get(of)?.functions ?? []) job.afterSwap.set(one, 'restored');
    job.swaps.delete(of);
  },
  words: () => 'Exchanged parts put back',
  keeps: ({ of }) => ({ row: 'hazard-over', sort: 'exchanged', of }),
  standsBehind: true,
};
