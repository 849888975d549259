/** A plan carried out on the server: once, whole or not at all, for its own shop, and no other job moves. */
import { randomUUID } from 'node:crypto';
import { examine, workOrder } from '#core/change';
import { mergeCircuits } from '#core/circuit';
import { ENTRY_VERSION, type EventBody, type PlanFile } from '#core/format';
import { KEY_STATES } from '#core/limits';
import { beside, transaction } from '@/db/transaction';
import {
  appendEvents,
  appendIn,
  beginJob,
  changesInForce,
  learnOnJob,
  loadJob,
  openHazards,
} from '@/features/jobs/server';
import { loadVehicle } from '@/features/vehicles/server';
import { demoActor, stranger, withDatabase } from '../../../testing/database';
import { carryOutPlan, keepRecipe, listRecipes, startUndo } from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

const label: PlanFile['edits'][number] = {
  kind: 'label',
  id: 'e2',
  on: 'Step lamp',
  words: 'Out on purpose',
};

async function planned() {
  const actor = await demoActor();
  const [id, vehicleId] = [randomUUID(), randomUUID()];
  const begin = (jobId: string, more: object) =>
    beginJob(actor, { id: jobId, title: 'Step lamp out', vehicleId, ...more });
  await begin(id, {
    vehicleName: 'Grey tipper',
    plate: randomUUID().slice(0, 8),
    nominalVolts: 12,
    pattern: 'fuse-switch-load',
    kind: 'lamp',
    load: 'Step lamp',
    state: 'dead',
  });
  const { circuits } = (await loadJob(actor, id))!;
  const lamp = circuits[0]!.parts.find(({ kind }) => kind === 'lamp')!;
  const plan: PlanFile = {
    format: 'every-trace/plan',
    version: 1,
    id: 'p1',
    name: 'Step lamp out',
    purpose: '',
    edits: [{ kind: 'take-out', id: 'e1', part: lamp.id, kept: false }, label],
  };
  let order = 100;
  const record = (...bodies: EventBody[]) =>
    appendEvents(
      actor,
      bodies.map((body) => ({
        id: randomUUID(),
        jobId: id,
        version: ENTRY_VERSION,
        madeAt: new Date().toISOString(),
        clientOrder: order++,
        body,
      })),
    );
  const looked = examine(mergeCircuits(circuits).circuit, plan);
  const steps = workOrder(looked);
  const all: EventBody[] = [
    { kind: 'tester-proved', on: 'posts' },
    ...looked.findings.flatMap((finding): EventBody[] =>
      finding.level === 'danger'
        ? [
            {
              kind: 'finding-kept',
              plan: 'p1',
              finding: `${finding.kind}:${finding.path.join('+')}`,
              words: finding.words,
              reason: 'looked at',
            },
          ]
        : [],
    ),
    ...steps.map(
      (step): EventBody => ({
        kind: 'plan-step',
        plan: 'p1',
        step: step.id,
        how: 'done',
        words: step.words,
        ...(step.leaves ? { leaves: step.leaves } : {}),
      }),
    ),
    ...steps.flatMap((step): EventBody[] => {
      const { asks } = step;
      if (asks.by !== 'wire-ends') return [];
      return KEY_STATES.flatMap((state) =>
        (['a', 'b'] as const).map(
          (end): EventBody => ({
            kind: 'wire-reading',
            wire: asks.wire,
            end,
            value: { lamp: 'off' },
            state,
            testerProved: true,
          }),
        ),
      );
    }),
  ];
  return { actor, id, vehicleId, plan, lamp: lamp.id, record, all, begin };
}

test('nothing is made while a step is open, for another shop, or of a plan that is not there', async () => {
  const { actor, id, vehicleId, plan, record } = await planned();
  await record({ kind: 'plan', plan });
  expect(await carryOutPlan(actor, id, { id: randomUUID(), plan: 'p1' })).toMatchObject({ ok: false });
  expect(await carryOutPlan(actor, id, { id: randomUUID(), plan: 'another' })).toMatchObject({
    message: 'The job has no such plan.',
  });
  expect(await carryOutPlan(await stranger(), id, { id: randomUUID(), plan: 'p1' })).toMatchObject({
    ok: false,
  });
  expect((await loadVehicle(actor, vehicleId))!.circuits[0]!.version).toBe(1);
});

test('carried out once: a new version, its entry, the ledger; another job stays where it was; then undone as it was', async () => {
  const { actor, id, vehicleId, plan, lamp, record, all, begin } = await planned();
  const other = randomUUID();
  await begin(other, { work: 'change' });
  await record({ kind: 'plan', plan }, ...all);
  expect((await openHazards(actor, { vehicleId })).count).toBeGreaterThan(0);
  const request = randomUUID();
  const before = (await loadVehicle(actor, vehicleId))!.circuits[0]!.file;
  expect(await carryOutPlan(actor, id, { id: request, plan: 'p1' })).toEqual({ ok: true });
  // The same request once more, and another for the same plan, make nothing twice.
  expect(await carryOutPlan(actor, id, { id: request, plan: 'p1' })).toEqual({ ok: true });
  expect(await carryOutPlan(actor, id, { id: randomUUID(), plan: 'p1' })).toMatchObject({ ok: false });
  const now = (await loadVehicle(actor, vehicleId))!.circuits[0]!;
  expect(now.version).toBe(2);
  expect(now.file.parts.some((part) => part.id === lamp)).toBe(false);
  expect((await loadJob(actor, id))!.circuits[0]!.parts.some((part) => part.id === lamp)).toBe(false);
  expect((await loadJob(actor, other))!.circuits[0]!.parts.some((part) => part.id === lamp)).toBe(true);
  expect((await openHazards(actor, { vehicleId })).count).toBe(0);
  expect(await changesInForce(actor, vehicleId)).toMatchObject([
    { words: 'Step lamp out', plan: 'p1', jobId: id },
  ]);

  const undo = randomUUID();
  expect(
    await startUndo(await stranger(), vehicleId, { id: randomUUID(), job: id, plan: 'p1' }),
  ).toMatchObject({ ok: false });
  expect(await startUndo(actor, vehicleId, { id: undo, job: id, plan: 'p1' })).toEqual({
    ok: true,
    job: undo,
  });
  const stated = (await loadJob(actor, undo))!.events.flatMap(({ body }) =>
    body.kind === 'plan' ? [body.plan] : [],
  );
  expect(stated).toHaveLength(1);
  expect(examine(now.file, stated[0]!).played.stuck).toBeNull();
  expect(JSON.stringify(examine(now.file, stated[0]!).played.after)).toBe(JSON.stringify(before));
});

test('what somebody changed meanwhile is said, and nothing is made over it', async () => {
  const { actor, id, vehicleId, plan, lamp, record, all } = await planned();
  await record(
    {
      kind: 'plan',
      plan: { ...plan, edits: [{ kind: 'take-out', id: 'e1', part: `${lamp}-gone`, kept: false }, label] },
    },
    ...all,
  );
  expect(await carryOutPlan(actor, id, { id: randomUUID(), plan: 'p1' })).toMatchObject({
    ok: false,
    message: expect.stringContaining('has changed since'),
  });
  expect((await loadVehicle(actor, vehicleId))!.circuits[0]!.version).toBe(1);
});

test('more at once than there are connections: none waits for a connection that another of them holds', async () => {
  const all = [];
  for (let at = 0; at < 12; at++) all.push(await planned());
  for (const { plan, record, all: steps } of all) await record({ kind: 'plan', plan }, ...steps);
  const made = await Promise.all(
    all.map(({ actor, id }) => carryOutPlan(actor, id, { id: randomUUID(), plan: 'p1' })),
  );
  expect(made).toEqual(all.map(() => ({ ok: true })));
}, 120_000);

test('a step that is struck while the plan waits for its job keeps it from being carried out', async () => {
  const { actor, id, vehicleId, plan, record, all } = await planned();
  await record({ kind: 'plan', plan }, ...all);
  const step = (await loadJob(actor, id))!.events.find(({ body }) => body.kind === 'plan-step')!;
  let carried: ReturnType<typeof carryOutPlan> | undefined;
  await transaction(async (tx) => {
    const struck = await appendIn(tx, actor, [
      {
        id: randomUUID(),
        jobId: id,
        version: ENTRY_VERSION,
        madeAt: new Date().toISOString(),
        clientOrder: 900,
        body: { kind: 'correction', of: step.id },
      },
    ]);
    expect(struck.ok).toBe(true);
    carried = beside(() => carryOutPlan(actor, id, { id: randomUUID(), plan: 'p1' }));
    // Long enough for it to have read what it could read beside this.
    await new Promise((resolve) => setTimeout(resolve, 300));
  });
  expect(await carried).toMatchObject({ ok: false });
  expect((await loadVehicle(actor, vehicleId))!.circuits[0]!.version).toBe(1);
});

test('what is learned and what is carried out on one job at once wait for each other, and both are kept', async () => {
  for (let round = 0; round < 6; round++) {
    const { actor, id, vehicleId, plan, record, all } = await planned();
    await record({ kind: 'plan', plan }, ...all);
    const fuse = (await loadVehicle(actor, vehicleId))!.circuits[0]!.file.parts.find(
      ({ kind }) => kind === 'fuse',
    )!;
    const fact = { id: randomUUID(), part: fuse.id, fields: { name: 'Lamp fuse' }, was: { name: fuse.name } };
    const [learned, carried] = await Promise.all([
      learnOnJob(actor, id, fact),
      carryOutPlan(actor, id, { id: randomUUID(), plan: 'p1' }),
    ]);
    expect([learned.ok, carried.ok]).toEqual([true, true]);
    expect((await loadVehicle(actor, vehicleId))!.circuits[0]!.version).toBe(3);
  }
}, 120_000);

test('a recipe is the shop’s own: one of each name, without what belongs to one vehicle', async () => {
  const { actor, plan } = await planned();
  const name = `Step lamp ${randomUUID()}`;
  const keep = (more: Partial<PlanFile>) =>
    keepRecipe(actor, { id: randomUUID(), name, plan: { ...plan, ...more }, rests: [] });
  expect(await keep({ unverified: { L1: 'seen nowhere' } })).toEqual({ ok: true });
  expect(await keep({ purpose: 'the second time' })).toEqual({ ok: true });
  const own = (await listRecipes(actor)).filter((one) => one.name === name);
  expect(own).toHaveLength(1);
  expect(own[0]!.plan).toMatchObject({ purpose: 'the second time' });
  expect(own[0]!.plan.unverified).toBeUndefined();
  expect((await listRecipes(await stranger())).filter((one) => one.name === name)).toEqual([]);
});
