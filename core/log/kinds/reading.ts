/** Readings of the trace, the tester that takes them, tests that were not done. */
import { testId, testInLog } from '../../diagnosis';
import type { BodyOf } from '../../format';
import type { EventKindOf } from '../kind';
import { valueWords } from '../names';

export const reading: EventKindOf<BodyOf<'reading'>> = {
  fold: (job, { place, test, value }) => {
    if (place) job.opened.add(place);
    // A part was tried in a place: which of the two stayed there is asked.
    if (test.kind === 'substitute' && 'state' in value) job.inPlace.set(test.part, 'asked');
  },
  words: (body, circuit) => `${testInLog(circuit, body.test)}: ${valueWords(body.value)}`,
  step: (row) => ({ ...row, readings: row.readings + 1 }),
};

export const testerProved: EventKindOf<BodyOf<'tester-proved'>> = {
  fold: (job, _body, { madeAt }) => {
    job.testerProvedAt = madeAt;
  },
  words: (body) => `Tester proved on ${body.on}`,
};

export const testRefused: EventKindOf<BodyOf<'test-refused'>> = {
  fold: (job, { test }) => {
    job.refused.add(testId(test));
  },
  words: (body, circuit) => `Not done: ${testInLog(circuit, body.test)} (${body.reason})`,
};

export const pluggedIn: EventKindOf<BodyOf<'plugged-in'>> = {
  fold: (job, body) => {
    job.pluggedIn = body;
  },
  words: ({ appliance, watts }) =>
    appliance
      ? `A portable appliance was plugged in${watts === undefined ? '' : `, ${watts} W`}`
      : 'Nothing was plugged in when the fuses went',
};

/** What it is, and all fuses of the case. */
const quarantineWords = ({ words, fuses = [] }: BodyOf<'appliance-set-aside'>) =>
  fuses.length === 0 ? words : `${words}; it took ${fuses.join(', ')}`;

/** The appliance is unplugged and aside, or was shown to be sound. */
export const applianceSetAside: EventKindOf<BodyOf<'appliance-set-aside'>> = {
  fold: (job, body, { id }) => {
    job.applianceSetAside = true;
    job.setAside.set(id, quarantineWords(body));
  },
  words: (body) => `Appliance set aside: ${quarantineWords(body)}`,
  keeps: (body) => ({
    row: 'hazard',
    sort: 'appliance',
    words: `In quarantine, not tested: ${quarantineWords(body)}`,
    due: null,
  }),
  standsBehind: true,
};

export const applianceReleased: EventKindOf<BodyOf<'appliance-released'>> = {
  fold: (job, { of }) => {
    job.setAside.delete(of);
  },
  words: ({ words }) => `Appliance out of quarantine: ${words}`,
  keeps: ({ of }) => ({ row: 'hazard-over', sort: 'appliance', of }),
  standsBehind: true,
};
