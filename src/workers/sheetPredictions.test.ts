/** What the thread of the sheets keeps from one sheet to the next. */
import type { KeptPredictions } from '#core/diagnosis';
import type { CircuitFile, EventBody } from '#core/format';
import { jobState, workedScene } from '#core/log';
import { demoCircuit } from '../../testing/circuits';
import { PredictionsInMemory } from './sheetPredictions';

const FAN = { function: 'cabinet-fan', condition: 'fan-on' };
const van = demoCircuit('van-proving-cabinet');
const maps = { circuits: [van], panelSet: null, vehicle: { nominalVolts: 12 } };

/** Predictions of one test, as many bytes as asked for and a little more. */
function predictions(bytes: number): KeptPredictions {
  const count = bytes / Float64Array.BYTES_PER_ELEMENT;
  const rows = Array.from({ length: count }, (_, row) => String(row));
  const test = { id: 'volts|a', outcomes: 1, columns: { mean: new Float64Array(count) } };
  return { rows, tests: new Map([[test.id, test]]) };
}

const jobOf = (...bodies: EventBody[]) =>
  jobState(
    bodies.map((body, at) => ({
      id: `00000000-0000-4000-8000-00000000000${at}`,
      jobId: '00000000-0000-4000-8000-0000000000ff',
      version: 1,
      clientOrder: at,
      sequence: at + 1,
      madeAt: `2026-03-31T14:0${at}:00.000Z`,
      recordedAt: `2026-03-31T14:0${at}:00.000Z`,
      by: 'Imre Vale',
      body,
    })) as unknown as Parameters<typeof jobState>[0],
  );

const complaint = { kind: 'complaint', words: 'Fan dead', ...FAN, state: 'dead' } as unknown as EventBody;
const atFuse = {
  kind: 'reading',
  test: { kind: 'volts', node: 'f31-out', against: van.reference, condition: 'fan-on' },
  value: { volts: 0.02 },
  raw: '0.02',
  testerProved: true,
} as unknown as EventBody;

test('the second sheet of a job works nothing out anew and says the same', () => {
  const inner = new PredictionsInMemory();
  const kept: string[] = [];
  const store = {
    of: inner.of.bind(inner),
    keep: (...all: Parameters<PredictionsInMemory['keep']>) => {
      kept.push(all[1].function);
      inner.keep(...all);
    },
  };
  const job = jobOf(complaint, atFuse);
  const plain = workedScene(maps, job, {});
  expect(plain.assessment!.effects).toHaveLength(2);
  const first = workedScene(maps, job, { store });
  expect(kept).toEqual(['cabinet-fan']);
  const second = workedScene(maps, job, { store });
  expect(kept).toEqual(['cabinet-fan']);
  expect(first.assessment).toEqual(plain.assessment);
  expect(second.assessment).toEqual(plain.assessment);
});

test('another complaint, and a circuit that differs in one value, find nothing of it', () => {
  const store = new PredictionsInMemory();
  store.keep(van, FAN, predictions(800));
  expect(store.of(van, FAN)).toHaveLength(1);
  expect(store.of(van, { ...FAN, condition: 'all-off' })).toEqual([]);
  const other: CircuitFile = { ...van, name: `${van.name}, drawn again` };
  expect(store.of(other, FAN)).toEqual([]);
});

test('no more is held than there is room for: what was used longest ago goes', () => {
  const store = new PredictionsInMemory(30_000);
  const of = (condition: string) => ({ function: 'fan', condition });
  for (const condition of ['a', 'b']) store.keep(van, of(condition), predictions(8000));
  expect(store.of(van, of('a'))).toHaveLength(1);
  store.keep(van, of('c'), predictions(8000));
  expect(['a', 'b', 'c'].map((one) => store.of(van, of(one)).length)).toEqual([1, 0, 1]);
  expect(store.heldBytes).toBeLessThanOrEqual(30_000);
});
