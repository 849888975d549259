/** Plans in the log: what they leave, what bars closing, what sheet and labels say, and what a struck step gives back. */
import { demoCircuit } from '../../testing/circuits';
import { cut } from '../../testing/plannedChanges';
import type { EventBody, PanelSetFile, PlanFile } from '../format';
import { keptOf } from './kinds';
import { labelsOf } from './labelsOf';
import { missingProofs } from './missing';
import { inTheMiddle, leftBy } from './plansOnJob';
import { workedScene } from './scene';
import { sheetOf } from './sheet';
import { jobState } from './state';
import { onMaps } from './traced';
import { workSheetOf } from './workSheet';

const HATCH = demoCircuit('van-hatch-fridge');
const plan: PlanFile = {
  format: 'every-trace/plan',
  version: 1,
  id: 'p1',
  name: 'Hatch lamp off',
  purpose: 'asked by the owner',
  edits: [{ ...cut('W51'), id: 'c1' }],
  loom: ['keeper 120 mm'],
};
const uuid = (index: number) => `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`;
const job = (...bodies: EventBody[]) =>
  jobState(
    bodies.map((body, index) => ({
      id: uuid(index),
      seq: index + 1,
      person: 'Bea Wray',
      madeAt: `2026-10-01T10:0${index}:00Z`,
      clientOrder: index,
      body,
    })),
  );
const COMPLAINT: EventBody = { kind: 'complaint', words: 'Hatch lamp off', work: 'change' };
const STATED: EventBody = { kind: 'plan', plan };
const step = (how: 'done' | 'back' | 'override' | 'wrong', more: object = {}): EventBody =>
  ({ kind: 'plan-step', plan: 'p1', step: 'c1.cut', how, words: 'Cut it.', ...more }) as EventBody;
const CUT = step('done', { leaves: 'Feed to the hatch switch is cut.' });
const ENDED: EventBody = {
  kind: 'plan-ended',
  plan: 'p1',
  how: 'carried',
  name: plan.name,
  words: ['Cut Feed to the hatch switch.'],
  undo: ['Join it again.'],
  labels: [{ sort: 'flag', title: 'Feed to the hatch switch', lines: ['Undo: join it'] }],
};
const scene = (state: ReturnType<typeof job>) => ({
  job: state,
  circuit: HATCH,
  panels: [],
  nominalVolts: 12,
  proofs: [],
  assessment: null,
  expected: {},
});
const saidBy = (state: ReturnType<typeof job>) =>
  sheetOf(scene(state))
    .parts.flatMap(({ title, lines }) => lines.map(({ words, more }) => `${title}: ${words} ${more ?? ''}`))
    .join('\n');

test('planned, half done, taken back: what bars closing, and what the sheet says, follow', () => {
  const planned = job(COMPLAINT, STATED);
  expect(missingProofs(planned, [], HATCH).join()).toContain('is planned: neither begun nor given up');
  expect(saidBy(planned)).toContain('Planned, nothing done: Hatch lamp off.');
  const half = job(COMPLAINT, STATED, CUT);
  expect(inTheMiddle(half)).toHaveLength(1);
  expect(leftBy(inTheMiddle(half)[0]!)).toEqual(['Feed to the hatch switch is cut.']);
  expect(missingProofs(half, [], HATCH).join()).toContain('is half done');
  expect(saidBy(half)).toMatch(
    /As it stands now: In the middle of a change: Hatch lamp off[\s\S]*Changes: HALF DONE/,
  );
  const back = job(COMPLAINT, STATED, CUT, step('back', { of: uuid(2) }));
  expect(inTheMiddle(back)).toEqual([]);
  const over = job(COMPLAINT, STATED, CUT, step('back', { of: uuid(2) }), { ...ENDED, how: 'taken-back' });
  expect(missingProofs(over, [], HATCH).join()).not.toContain('Hatch lamp off');
});

test('carried out it is the work that was done, with the way back and the labels as they were', () => {
  const done = job(COMPLAINT, STATED, CUT, ENDED);
  expect(done.stage).toBe('done');
  expect(missingProofs(done, [], HATCH).join()).not.toMatch(/no work|no function|Hatch lamp off/);
  expect(saidBy(done)).toContain('To undo it: 1. Join it again.');
  expect(labelsOf(done, HATCH, 'the job').map(({ title }) => title)).toContain('Feed to the hatch switch');
});

test('a reason that passed a step, and a danger that stays, stand on the sheet', () => {
  const said = saidBy(
    job(COMPLAINT, STATED, step('override', { reason: 'no room' }), {
      kind: 'finding-kept',
      plan: 'p1',
      finding: 'live-ends:x',
      words: 'An open end.',
      reason: 'taken off tomorrow',
    }),
  );
  expect(said).toMatch(/Gates overridden.*Passed: Cut it\. – because: no room/);
  expect(said).toContain('Because: taken off tomorrow');
});

test('a step that leaves something is a hazard, taken back it is over, and the end of the plan ends all of them', () => {
  expect(keptOf(CUT)).toEqual([
    { row: 'hazard', sort: 'half-done', words: 'Feed to the hatch switch is cut.', due: null },
  ]);
  expect(keptOf(step('back', { of: uuid(2) }))).toEqual([
    { row: 'hazard-over', sort: 'half-done', of: uuid(2) },
  ]);
  expect(keptOf(ENDED)).toEqual([{ row: 'hazard-over', sort: 'half-done', of: null }]);
});

test('a step that was struck is done no more', () => {
  const struck = job(COMPLAINT, STATED, CUT, { kind: 'correction', of: uuid(2) });
  expect(inTheMiddle(struck)).toEqual([]);
});

test('the work order on paper: sentences, dangers, boxes to tick, marks along the loom, labels, the way back', () => {
  const maps = { circuits: [HATCH], panelSet: null, vehicle: { nominalVolts: 12 } };
  const sheet = workSheetOf(maps, job(COMPLAINT, STATED, { kind: 'tester-proved', on: 'posts' }), 'p1')!;
  const part = (title: string) =>
    sheet.parts.find((one) => one.title === title)!.lines.map(({ words }) => words);
  expect(part('Hatch lamp off')).toEqual(['1. Cut Feed to the hatch switch; a cap on each end.']);
  expect(part('What it shows').join()).toContain('▲ Feed to the hatch switch, cut, towards a is an open end');
  expect(part('Read before anything is touched')[0]).toMatch(/^☑ Prove the tester/);
  expect(part('Along the loom')[0]).toBe('keeper 120 mm');
  expect(part('Cut, free and cap')[0]).toMatch(/^☐ Cut Feed/);
  expect(part('To undo it')[0]).toContain('Join the two ends');
  expect(workSheetOf(maps, job(COMPLAINT, STATED), 'another')).toBeNull();
  expect(workSheetOf(maps, job(COMPLAINT, STATED, CUT, ENDED), 'p1')!.standing).toBe('Carried out');
});

test('what a job has answered about a slot is on the maps of every page and sheet of it', () => {
  const fuse = HATCH.parts.find((part) => part.kind === 'fuse' && part.slot)!;
  const { panel, slot } = fuse.slot!;
  const panelSet = { panels: [{ id: panel, slots: [{ id: slot, label: '' }] }] } as unknown as PanelSetFile;
  const maps = { circuits: [HATCH], panelSet, vehicle: { nominalVolts: 12 } };
  const answer = { kind: 'slot-state', panel, slot, state: 'in-use', evidence: 'seen', safetyCritical: true };
  const marked = (state: ReturnType<typeof job>) =>
    onMaps(maps, state).circuit!.parts.find(({ id }) => id === fuse.id)!.safetyCritical;
  expect(marked(job(COMPLAINT, STATED))).toBeUndefined();
  const answered = job(COMPLAINT, STATED, answer as EventBody);
  expect(marked(answered)).toBe(true);
  expect(onMaps(maps, answered).panelSet!.panels[0]!.slots[0]!.safetyCritical).toBe(true);
  expect(workedScene(maps, answered, {}).circuit).toEqual(onMaps(maps, answered).circuit);
});
