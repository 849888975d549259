/** What counts towards a shop's own weights, and how they blend with the starting table. */
import {
  learnWeights,
  priorTable,
  priorWeight,
  startingWeight,
  TABLE_COUNTS_AS,
} from '#core/diagnosis/hypotheses/priors';

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
