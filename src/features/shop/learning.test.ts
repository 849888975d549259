/** What counts towards a shop's own weights, and how they blend with the starting table. */
import {
  learnWeights,
  priorTable,
  priorWeight,
  startingWeight,
  TABLE_COUNTS_AS,
} from '#core/diagnosis/priors';
import type { EventBody } from '#core/format/jobSchema';
import { formsFound } from './learning';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

function found(jobId: string, id: string, mode: string, strength: 'proved' | 'supported' = 'proved') {
  const body: EventBody = {
    kind: 'found',
    parts: ['C1'],
    fault: 'Plug open',
    form: { part: 'C1', kind: 'connector', mode },
    strength,
    cause: 'unknown',
    causeWords: '',
    evidence: [],
  };
  return { jobId, id, body };
}

test('each job counts once, with what stands last, and only when it was proved', () => {
  expect(
    formsFound([
      found('one', 'a', 'open'),
      found('one', 'b', 'high-resistance'),
      found('two', 'c', 'high-resistance'),
      found('three', 'd', 'open', 'supported'),
      found('four', 'e', 'open'),
      { jobId: 'four', id: 'f', body: { kind: 'correction', of: 'e' } },
    ]),
  ).toEqual([{ kind: 'connector', mode: 'high-resistance', count: 2 }]);
});

test('what is no mode of fault, or has no form, counts for nothing', () => {
  expect(formsFound([found('one', 'a', 'gone')])).toEqual([]);
  const { form: _form, ...bare } = found('two', 'b', 'open').body as Extract<EventBody, { kind: 'found' }>;
  expect(formsFound([{ jobId: 'two', id: 'b', body: bare }])).toEqual([]);
});

test('without own jobs the table counts; so many jobs of one form weigh as much as the whole table', () => {
  const none = learnWeights([]);
  expect(none.every((one) => one.blended === one.starting && one.count === 0)).toBe(true);
  const total = none.reduce((sum, one) => sum + one.starting, 0);
  const many = learnWeights([{ kind: 'connector', mode: 'open', count: TABLE_COUNTS_AS }]);
  const plug = many.find((one) => one.kind === 'connector' && one.mode === 'open')!;
  expect(plug.blended).toBeCloseTo(plug.starting + total, 9);
  expect(priorWeight(priorTable(many), 'connector', 'open')).toBe(plug.blended);
  expect(priorWeight({}, 'connector', 'open')).toBe(startingWeight('connector', 'open'));
});
