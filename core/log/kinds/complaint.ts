/** What fails, on what vehicle, and what was seen of its functions before anything was touched. */
import type { BodyOf } from '../../format';
import { cellKey } from '../event';
import type { EventKindOf } from '../kind';
import { conditionName, functionName, STATE_WORDS, WORK_WORDS } from '../names';

export const complaint: EventKindOf<BodyOf<'complaint'>> = {
  fold: (job, body) => {
    job.complaint = body;
  },
  words: ({ work, words }) => `${work ? WORK_WORDS[work] : 'Complaint'}: ${words}`,
  step: (row, { words, function: of, condition, state, work }) => ({
    ...row,
    work: work !== undefined,
    complaint: words,
    asked: of && condition ? { function: of, condition, unbidden: state === 'on-when-off' } : null,
  }),
  standsBehind: true,
};

export const identity: EventKindOf<BodyOf<'identity'>> = {
  fold: (job, { nominalVolts, odometerKm, fuel, options, alterations }) => {
    const before = job.identity;
    // What an entry does not say leaves what stood before.
    job.identity = {
      nominalVolts: nominalVolts ?? before.nominalVolts,
      odometerKm: odometerKm ?? before.odometerKm,
      fuel: fuel ?? before.fuel,
      options: options ?? before.options,
      alterations: alterations ?? before.alterations,
    };
  },
  words: ({ nominalVolts, odometerKm, fuel, options, alterations }) =>
    [
      nominalVolts === undefined ? '' : `nominal voltage ${nominalVolts} V`,
      odometerKm === undefined ? '' : `odometer ${odometerKm} km`,
      fuel ? `fuel ${fuel}` : '',
      options ? `options: ${options}` : '',
      alterations ? `alterations: ${alterations}` : '',
    ]
      .filter((one) => one !== '')
      .join(', '),
};

export const functionCheck: EventKindOf<BodyOf<'function-check'>> = {
  fold: (job, body, { id }) => {
    const key = cellKey(body.function, body.condition);
    if (body.state === 'not-tried') job.checks.delete(key);
    else job.checks.set(key, { eventId: id, state: body.state });
  },
  words: (body, circuit) =>
    `${functionName(circuit, body.function)}: ${STATE_WORDS[body.state]} (${conditionName(circuit, body.condition)})`,
};

export const conditionSet: EventKindOf<BodyOf<'condition-set'>> = {
  fold: (job, { condition }) => {
    job.settings.set(condition.id, condition);
  },
  words: ({ condition }) => `Set as no condition of the map: ${condition.name}`,
};
