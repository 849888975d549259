/** Plans from intents, as work in its order, half done, carried out, undone, and started elsewhere. */
import { demoCircuit } from '../../testing/circuits';
import { add, button, cut, join, move, out, SOUND, tap, UNSAFE } from '../../testing/plannedChanges';
import { seeded } from '../../testing/randomCircuit';
import { mergeCircuits } from '../circuit';
import { type CircuitFile, checkPlan, type PanelSetFile, type PlanEdit, type PlanFile } from '../format';
import { KEY_STATES } from '../limits';
import {
  carryOut,
  concerned,
  type Ended,
  endsWords,
  examine,
  findingKey,
  foundOn,
  halfDone,
  INTENTS,
  littleCircuit,
  mayMove,
  playPlan,
  reducedTo,
  restsOn,
  rewriteEdit,
  STAGES,
  standingOf,
  startedOn,
  state,
  sumsBehind,
  undoAll,
  undoingPlan,
  type WorkFacts,
  workOrder,
} from '.';
import { endsRead } from './standing';

const CABINET = demoCircuit('van-proving-cabinet');
const HATCH = demoCircuit('van-hatch-fridge');
const VAN = [CABINET, HATCH, demoCircuit('van-demist')];
const JOINED = mergeCircuits(VAN).circuit;

const planOf = (edits: readonly PlanEdit[], more: Partial<PlanFile> = {}): PlanFile => ({
  format: 'every-trace/plan',
  version: 1,
  id: 'plan',
  name: 'Change',
  purpose: '',
  edits: [...edits],
  ...more,
});

function stated(id: string, circuit: CircuitFile, answers: Record<string, string>) {
  const made = state(INTENTS.find((one) => one.id === id)!, circuit, answers);
  if (!made.ok) throw new Error(`${made.field}: ${made.message}`);
  return made;
}
const SHELF = { wire: 'W36', feed: 'F33', when: 'accessory', amps: '2', metres: '2,5' };
const shelf = () => {
  const { edits, goals } = stated('live-with-key', JOINED, SHELF);
  return planOf(edits, { goals: [...goals] });
};

/** Facts of a job on which everything was done and read that a plan asks for. */
function everything(plan: PlanFile, circuit: CircuitFile): WorkFacts {
  const steps = workOrder(examine(circuit, plan));
  return {
    done: new Map(steps.map(({ id }) => [id, { how: 'done' as const }])),
    isolated: ['key-off', 'earthed-pole-off', 'dead-reading'],
    testerProved: true,
    kept: new Set(examine(circuit, plan).findings.map(findingKey)),
    wireReadings: steps.flatMap(({ asks }) =>
      asks.by === 'wire-ends'
        ? (['a', 'b'] as const).flatMap((end) =>
            KEY_STATES.map((at) => ({
              id: `${asks.wire}${end}${at}`,
              wire: asks.wire,
              end,
              state: at,
              value: { lamp: 'off' as const },
              testerProved: true,
            })),
          )
        : [],
    ),
    slotReadings: [],
    panels: [],
  };
}
const NOTHING: WorkFacts = {
  done: new Map(),
  isolated: [],
  kept: new Set(),
  testerProved: false,
  wireReadings: [],
  slotReadings: [],
  panels: [],
};

describe('intents', () => {
  test('points live only with the key: both breaks, a tap with its fuse, a wire with its size, goals in every state', () => {
    const made = stated('live-with-key', JOINED, SHELF);
    expect(made.edits.map(({ kind }) => kind)).toEqual(['take-out', 'take-out', 'tap', 'add', 'label']);
    // 2 A at 80 % asks 2.5 A, of the ratings 3 A.
    expect(made.edits[2]).toMatchObject({
      kind: 'tap',
      fuse: 'F33',
      addedAmps: 3,
      side: 'supply',
      family: 'mini',
    });
    expect(made.goals[0]).toMatchObject({
      of: 's8-in',
      on: ['accessory', 'run'],
      off: ['off', 'off-waited'],
    });
    const looked = examine(JOINED, planOf(made.edits, { goals: [...made.goals] }));
    expect(looked.findings.filter(({ level }) => level === 'danger')).toEqual([]);
    expect(
      looked.findings.some(({ level, words }) => level === 'asked' && words.includes('Left shelf light')),
    ).toBe(true);
    // Fed at run only by what is also live at accessory: not what was asked.
    const wrong = examine(
      JOINED,
      planOf(made.edits, { goals: [{ id: 'g', of: 's8-in', on: ['run'], off: ['accessory'] }] }),
    );
    expect(wrong.findings.find(({ kind }) => kind === 'goals')?.words).toContain(
      'was to be off (key at accessory)',
    );
  });

  test('what is missing is said at its field', () => {
    const ask = (answers: Record<string, string>) => state(INTENTS[0]!, JOINED, { ...SHELF, ...answers });
    expect(ask({ wire: '' })).toMatchObject({ ok: false, field: 'wire' });
    expect(ask({ feed: 'F32' })).toMatchObject({
      ok: false,
      field: 'feed',
      message: expect.stringContaining('feed it has now'),
    });
    expect(ask({ amps: 'a lot' })).toMatchObject({ ok: false, field: 'amps' });
    expect(ask({ amps: '1,200' })).toMatchObject({ ok: false, field: 'amps' });
    expect(ask({ amps: '300' })).toMatchObject({
      ok: false,
      field: 'amps',
      message: expect.stringContaining('more than any blade'),
    });
  });

  test('every intent states a plan that can be played, and its file is sound', () => {
    const answers: Record<string, Record<string, string>> = {
      'live-with-key': SHELF,
      'feed-load': {
        name: 'Crumb fan',
        kind: 'motor',
        amps: '3',
        switch: 'latching',
        feed: 'F35',
        when: 'always',
        metres: '3',
      },
      'relay-load': {
        name: 'Tray heater',
        kind: 'heater',
        watts: '240',
        seconds: '20',
        switch: 'momentary',
        feed: 'F33',
        when: 'accessory',
        metres: '3.2',
      },
      'feed-point': { to: 'r4-85', feed: 'F33', when: 'accessory', amps: '0.1', metres: '1' },
      'take-out-wire': { wire: 'W36', how: 'stays' },
      leftover: { name: 'Thick red wire', a: 'behind the oven' },
      'move-wire': { wire: 'W52', end: 'a', to: 'f34-out' },
      'switch-for-controller': { unit: 'R4', switch: 'latching', fuse: '10' },
      insert: { part: 'L3', what: 'cut-off', amps: '10', volts: '12' },
      bypass: {
        unit: 'SP2',
        one: 'sp2-fan',
        other: 'sp2-earth',
        negative: 'sp2-lights',
        metres: '1',
        mm2: '2.5',
      },
      'take-out-part': { part: 'F34', how: 'kept' },
      'add-wire': { from: 's9-out', to: 'l3-plus', metres: '1', mm2: '1.5', lies: 'sheathed' },
      join: { one: 's9-in', other: 's9-out' },
      cut: { wire: 'W52', percent: '30' },
    };
    for (const intent of INTENTS) {
      const made = stated(intent.id, JOINED, answers[intent.id]!);
      const plan = planOf(made.edits, { goals: [...made.goals] });
      expect([intent.id, checkPlan(plan).ok]).toEqual([intent.id, true]);
      const played = playPlan(JOINED, plan.edits);
      expect([intent.id, played.stuck]).toEqual([intent.id, null]);
      expect(JSON.stringify(undoAll(played))).toBe(JSON.stringify(JOINED));
      for (const { words } of workOrder(examine(JOINED, plan)))
        expect(words).not.toMatch(/undefined|NaN|null/);
    }
  });

  test('the heavy load by a relay: 20 A over 3.2 m, fused at the battery, its coil on the button', () => {
    const made = stated('relay-load', JOINED, {
      name: 'Steam plate',
      kind: 'heater',
      watts: '480',
      seconds: '20',
      switch: 'momentary',
      feed: 'F33',
      when: 'accessory',
      metres: '3.2',
    });
    const parts = made.edits.flatMap((edit) => (edit.kind === 'add' ? edit.parts : []));
    // 480 W at 12 V is 40 A: for seconds all of a 40 A fuse.
    expect(parts.find(({ kind }) => kind === 'fuse')).toMatchObject({ ratingAmps: 40 });
    expect(made.worked.join(' ')).toContain('rules');
    const looked = examine(JOINED, planOf(made.edits, { goals: [...made.goals] }));
    expect(looked.findings.filter(({ level }) => level === 'danger')).toEqual([]);
    const latching = planOf(
      made.edits.map((edit) =>
        edit.kind === 'add'
          ? {
              ...edit,
              parts: edit.parts.map((part) =>
                part.kind === 'switch' ? { ...part, momentary: false } : part,
              ),
            }
          : edit,
      ),
    );
    expect(examine(JOINED, latching).findings.map(({ kind }) => kind)).toContain('short-time');
    expect(workOrder(looked).find(({ asks }) => asks.by === 'duty')?.asks).toEqual({
      by: 'duty',
      seconds: 20,
    });
  });
});

describe('the work', () => {
  test('nothing is cut before both ends are read, nothing laid before its fuse, and labels stand before power', () => {
    const plan = shelf();
    const steps = workOrder(examine(JOINED, plan));
    const stages = steps.map(({ stage }) => STAGES.indexOf(stage));
    expect([...stages].sort((x, y) => x - y)).toEqual(stages);
    expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
    const standing = standingOf(steps, NOTHING, JOINED);
    const cutting = standing.find(({ step }) => step.stage === 'cut')!;
    expect(cutting.barred).toContain('Prove the tester');
    const read = standingOf(steps, { ...everything(plan, JOINED), done: new Map() }, JOINED);
    expect(read.find(({ step }) => step.asks.by === 'wire-ends')).toMatchObject({
      done: true,
      says: expect.stringContaining('Dead at both ends'),
    });
    expect(read.find(({ step }) => step.stage === 'cut')!.barred).toContain('both holes');
  });

  test('a reason passes a step, and the direction of a tap says nothing while both holes were only passed', () => {
    const plan = shelf();
    const steps = workOrder(examine(JOINED, plan));
    const holes = steps.find(({ asks }) => asks.by === 'holes')!;
    const facts = everything(plan, JOINED);
    const passed = standingOf(
      steps,
      {
        ...facts,
        done: new Map(
          [...facts.done, [holes.id, { how: 'override' as const, reason: 'no time' }]].filter(
            ([id]) => !`${id}`.endsWith('.direction'),
          ) as never,
        ),
      },
      JOINED,
    );
    expect(passed.find(({ step }) => step.id === holes.id)).toMatchObject({
      done: true,
      met: false,
      overridden: 'no time',
    });
    expect(passed.find(({ step }) => step.stage === 'direction')!.barred).toContain(
      'Both holes were not read',
    );
  });

  test('joined again in the middle of the work: nothing goes on with the power off', () => {
    const plan = shelf();
    const steps = workOrder(examine(JOINED, plan));
    const facts = everything(plan, JOINED);
    const until = new Map(
      [...facts.done].filter(([id]) =>
        ['read', 'isolate', 'break', 'dead'].includes(steps.find((one) => one.id === id)!.stage),
      ),
    );
    const holes = steps.find(({ asks }) => asks.by === 'holes')!;
    const done = new Map([...until, [holes.id, { how: 'override' as const, reason: 'by the survey' }]]);
    const cutting = (isolated: WorkFacts['isolated']) =>
      standingOf(steps, { ...facts, done, isolated }, JOINED).find(({ step }) => step.stage === 'cut')!
        .barred;
    expect(cutting(['key-off', 'earthed-pole-off'])).toBeNull();
    expect(cutting(['key-off'])).toContain('No longer isolated: earthed pole');
    // Dead is a reading of this work: one that was taken for another does not count.
    const unread = new Map([...done].filter(([id]) => id !== 'dead.reading'));
    expect(
      standingOf(steps, { ...facts, done: unread }, JOINED).find(({ step }) => step.id === 'dead.reading'),
    ).toMatchObject({ done: false });
  });

  test('ends of a wire: what the readings mean together', () => {
    const at = (a: readonly string[], b: readonly string[]) =>
      endsWords(
        endsRead(
          'W',
          {
            wireReadings: KEY_STATES.flatMap((name) =>
              (['a', 'b'] as const).map((end) => ({
                id: `${end}${name}`,
                wire: 'W',
                end,
                state: name,
                value: { lamp: (end === 'a' ? a : b).includes(name) ? ('lit' as const) : ('off' as const) },
                testerProved: true,
              })),
            ),
          },
          12,
        ),
      );
    expect(at([], [])).toBe('Dead at both ends in every state.');
    expect(at(['run'], ['function-on'])).toContain('Fed from both ends');
    expect(at(['run'], [])).toContain('end a (key at run)');
    expect(endsWords(endsRead('W', { wireReadings: [] }, 12))).toContain('14 readings are missing');
  });

  test('half done: what is left on the vehicle, what is in danger now, and the way back', () => {
    const plan = shelf();
    const looked = examine(JOINED, plan);
    const steps = workOrder(looked);
    expect(halfDone(looked, steps, () => false)).toMatchObject({ left: [], dangers: [], back: [] });
    const until = (stage: (typeof STAGES)[number]) => {
      const done = new Set(
        steps.filter((one) => STAGES.indexOf(one.stage) <= STAGES.indexOf(stage)).map(({ id }) => id),
      );
      return halfDone(looked, steps, (id) => done.has(id));
    };
    const pulled = until('break');
    expect(pulled.left).toEqual(['Fuse 32 (10 A) is out and must not be refitted.']);
    expect(pulled.back.map(({ words }) => words)).toEqual(['Put Fuse 32 (10 A) back as it was.']);
    const tapped = until('protect');
    expect(tapped.dangers.map(({ kind }) => kind)).toContain('live-ends');
    expect(until('lay').dangers).toEqual([]);
  });
});

describe('carried out', () => {
  const panels: PanelSetFile = {
    format: 'every-trace/panel-set',
    version: 1,
    id: 'p',
    name: 'Boxes',
    panels: [
      {
        id: 'bay',
        name: 'Bay',
        place: 'bay',
        minutesToOpen: 1,
        opening: [],
        width: 100,
        height: 100,
        landmark: { name: 'Duct', edge: 'top' },
        slots: ['32', '33'].map((number, index) => ({
          id: `fuse-${number}`,
          type: 'fuse' as const,
          number,
          label: `F${number}`,
          family: 'mini' as const,
          state: 'fitted' as const,
          x: index * 20,
          y: 0,
          width: 10,
          height: 10,
        })),
      },
    ],
  };

  test('nothing is made while a step is open; then files and slots change, and only those that have a part in it', () => {
    const plan = shelf();
    expect(carryOut(plan, VAN, panels, NOTHING)).toMatchObject({
      ok: false,
      message: expect.stringContaining('Prove the tester'),
    });
    const made = carryOut(plan, VAN, panels, everything(plan, JOINED));
    if (!made.ok) throw new Error(made.message);
    expect(made.files.map(({ circuit }) => circuit)).toEqual([CABINET.id]);
    expect(made.slots.map(({ slot, after }) => [slot, after.state])).toEqual([
      ['fuse-32', 'abandoned'],
      ['fuse-33', 'tapped'],
    ]);
    expect(made.entry.undo[0]).toContain('Take the label off');
    expect(made.entry.labels!.map(({ title }) => title)).toContain('FUSE 32: DO NOT REFIT');
    // The joined files of after are the plan’s own after.
    const after = VAN.map((file) => made.files.find(({ circuit }) => circuit === file.id)?.after ?? file);
    const joined = mergeCircuits(after);
    expect(joined.problems).toEqual([]);
    const ids = (file: CircuitFile) => file.parts.map(({ id }) => id).sort();
    expect(ids(joined.circuit)).toEqual(ids(playPlan(JOINED, plan.edits).after));
  });

  test('undone as a plan of its own, every file is as it was, byte for byte', () => {
    for (const edits of [
      shelf().edits,
      [tap('F34'), add(['x'], button('NB', 'lead', 'x', false))],
      [cut('W52')],
      [move('W52', 'a', 'f31-out')],
      [out('FR1', false)],
    ]) {
      const plan = planOf(edits);
      const made = carryOut(plan, VAN, panels, everything(plan, JOINED));
      if (!made.ok) throw new Error(made.message);
      const after = VAN.map((file) => made.files.find(({ circuit }) => circuit === file.id)?.after ?? file);
      const ended: Ended = JSON.parse(JSON.stringify(made.entry));
      const undo = undoingPlan(plan, ended, after, 'undo', '11111111-1111-4111-8111-111111111111');
      if (!undo.ok) throw new Error(undo.message);
      expect(checkPlan(undo.plan).ok).toBe(true);
      const looked = examine(mergeCircuits(after).circuit, undo.plan);
      expect(looked.played.stuck).toBeNull();
      // What comes back is what was there: nothing of it counts as not asked for.
      expect(looked.findings.filter(({ kind, level }) => kind === 'functions' && level === 'danger')).toEqual(
        [],
      );
      const back = carryOut(
        undo.plan,
        after,
        panels,
        everything(undo.plan, mergeCircuits(after).circuit),
        ended,
      );
      if (!back.ok) throw new Error(back.message);
      const files = after.map((file) => back.files.find(({ circuit }) => circuit === file.id)?.after ?? file);
      expect(files.map((file) => JSON.stringify(file))).toEqual(VAN.map((file) => JSON.stringify(file)));
    }
  });

  test('a danger that nobody has answered for, and what was done and is not in the plan, are carried out by nobody', () => {
    const plan = planOf([cut('W51')]);
    const facts = everything(plan, JOINED);
    expect(carryOut(plan, VAN, panels, facts)).toMatchObject({ ok: true });
    expect(carryOut(plan, VAN, panels, { ...facts, kept: new Set() })).toMatchObject({
      ok: false,
      message: expect.stringContaining('open end with 12'),
    });
    const stray = { how: 'done' as const, leaves: 'Fuse 35 (20 A) is out and must not be refitted.' };
    expect(
      carryOut(plan, VAN, panels, { ...facts, done: new Map([...facts.done, ['gone.pull', stray]]) }),
    ).toMatchObject({ ok: false, message: expect.stringContaining('Fuse 35') });
  });

  test('part of a change taken back is a change of its own: slots stay, and the ledger keeps the rest', () => {
    const plan = shelf();
    const made = carryOut(plan, VAN, panels, everything(plan, JOINED));
    if (!made.ok) throw new Error(made.message);
    const after = VAN.map((file) => made.files.find(({ circuit }) => circuit === file.id)?.after ?? file);
    const undo = undoingPlan(plan, made.entry, after, 'undo', '11111111-1111-4111-8111-111111111111');
    if (!undo.ok) throw new Error(undo.message);
    const part = { ...undo.plan, edits: undo.plan.edits.slice(0, 1) };
    const back = carryOut(part, after, panels, everything(part, mergeCircuits(after).circuit), made.entry);
    if (!back.ok) throw new Error(back.message);
    expect(back.entry.undoes).toBeUndefined();
    expect(back.slots).toEqual([]);
  });

  test('what was changed again since is said, and nothing is undone over it', () => {
    const plan = shelf();
    const made = carryOut(plan, VAN, panels, everything(plan, JOINED));
    if (!made.ok) throw new Error(made.message);
    const after = VAN.map((file) => made.files.find(({ circuit }) => circuit === file.id)?.after ?? file);
    const since = after.map((file) => ({
      ...file,
      parts: file.parts.filter(({ name }) => !name.startsWith('New feed')),
    }));
    expect(undoingPlan(plan, made.entry, since, 'u', '11111111-1111-4111-8111-111111111111')).toMatchObject({
      ok: false,
    });
  });

  test('steps that were passed stay owed where passing does not end them', () => {
    const plan = planOf([out('W36', false)]);
    const facts = everything(plan, JOINED);
    const cap = workOrder(examine(JOINED, plan)).find(({ id }) => id.endsWith('cap-b'))!;
    const made = carryOut(plan, VAN, null, {
      ...facts,
      done: new Map([...facts.done, [cap.id, { how: 'override', reason: 'behind the tank' }]]),
    });
    if (!made.ok) throw new Error(made.message);
    expect(made.owed).toEqual([expect.stringContaining('behind the tank')]);
    expect(made.entry.passed).toEqual([expect.stringContaining('behind the tank')]);
  });
});

test('edits in any permitted order give the same circuit', () => {
  const canonical = (circuit: CircuitFile) =>
    JSON.stringify({
      ...circuit,
      nodes: [...circuit.nodes].sort((x, y) => (x.id < y.id ? -1 : 1)),
      parts: [...circuit.parts].sort((x, y) => (x.id < y.id ? -1 : 1)),
    });
  let moved = 0;
  const plans = [...SOUND, ...UNSAFE].filter(({ edits }) => edits.length > 1);
  for (const [seed, { circuit, edits }] of plans.entries()) {
    const random = seeded(seed + 7);
    const whole = playPlan(circuit, edits);
    let order = [...edits];
    for (let time = 0; time < 40; time++) {
      const { applied } = playPlan(circuit, order);
      const from = Math.floor(random() * order.length);
      const to = Math.floor(random() * order.length);
      if (from === to || mayMove(applied, from, to) !== null) continue;
      const next = [...order];
      next.splice(to, 0, ...next.splice(from, 1));
      const played = playPlan(circuit, next);
      expect(played.stuck).toBeNull();
      expect(canonical(played.after)).toBe(canonical(whole.after));
      order = next;
      moved += 1;
    }
  }
  expect(moved).toBeGreaterThan(40);
});

test('what is written in the text is one edit: played it gives what was written, undone what was there', () => {
  for (const { circuit, edits } of [...SOUND, ...UNSAFE]) {
    const { after } = playPlan(circuit, edits);
    const edit = rewriteEdit(circuit, after, 'text');
    if (edit === null) continue;
    expect(checkPlan(planOf([edit])).ok).toBe(true);
    const played = playPlan(circuit, [edit]);
    expect(played.stuck).toBeNull();
    const byId = (file: CircuitFile) => new Map(file.parts.map((part) => [part.id, part]));
    expect(byId(played.after)).toEqual(byId(after));
    expect(JSON.stringify(undoAll(played))).toBe(JSON.stringify(circuit));
    expect(played.applied[0]!.words).toMatch(/^By the text: /);
    expect(played.applied[0]!.undo).toMatch(/^By the text: /);
    const steps = workOrder(examine(circuit, planOf([edit])));
    expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
    expect(steps.filter((one) => one.edit === 'text')).toHaveLength(1);
  }
  expect(rewriteEdit(HATCH, HATCH, 'text')).toBeNull();
});

test('sums behind a plan: the most that new parts carry, in the setting in which they do, and what is drawn asleep', () => {
  const sums = sumsBehind(examine(JOINED, shelf()));
  // Two lamps of 12 W behind the switch: about 2 A, in a setting in which it is on.
  const wire = sums.parts.find(({ kind }) => kind === 'wire')!;
  expect(wire.amps).toBeGreaterThan(1.7);
  expect(wire.amps).toBeLessThan(2.1);
  expect(wire.words).toContain('Shelf-light switch on');
  expect(wire).toMatchObject({ mm2: 0.75, metres: 2.5, carries: 14 });
  expect(sums.parts.find(({ kind }) => kind === 'fuse')).toMatchObject({ carries: 3 });
  expect(sums.asleep.before).toBeGreaterThan(0);
});

describe('settings', () => {
  const switches = (count: number) =>
    Array.from({ length: count }, (_, index) => button(`SX${index}`, 'bay-bus', `sx${index}`, false));
  const many = (count: number): PlanEdit[] => [
    add(
      switches(count).map((_, index) => `sx${index}`),
      ...switches(count),
    ),
  ];
  test('beyond a thousand every one is still looked at, and it is told how far it is', () => {
    const told: number[] = [];
    const looked = examine(HATCH, planOf(many(11)), (share) => told.push(share));
    expect(looked.settingCount).toBe(4096);
    expect(looked.scene.settings).toHaveLength(4096);
    expect(told.length).toBeGreaterThan(10);
    expect([...told].sort((x, y) => x - y)).toEqual(told);
  });
  test('beyond sixteen thousand every two things are turned together, and the count says so', () => {
    const looked = examine(HATCH, planOf(many(16)));
    expect(looked.settingCount).toBe(2 ** 17);
    expect(looked.scene.settings.length).toBeLessThan(1000);
    const both = looked.scene.settings.filter(({ at }) => at.SX3 === 'on' && at.SX9 === 'on');
    expect(both).toHaveLength(1);
  });
});

test('a recipe on another vehicle: found by name, ids that are taken exchanged, all of it unverified there', () => {
  const plan = shelf();
  const rests = restsOn(plan, JOINED);
  expect(rests.map(({ id }) => id)).toEqual(expect.arrayContaining(['F32', 'W36', 'F33', 's8-in']));
  // Another van of the kind, its ids its own and a part that bears the recipe’s new name already.
  const own = (id: string) => (id === JOINED.reference ? id : `z-${id}`);
  const other: CircuitFile = {
    ...JOINED,
    nodes: JOINED.nodes.map((node) => ({ ...node, id: own(node.id) })),
    functions: JOINED.functions.map((one) => ({ ...one, load: own(one.load) })),
    conditions: [{ id: 'run', name: 'Run', key: 'run' }],
    parts: JOINED.parts.map(
      (part) =>
        ({
          ...part,
          id: own(part.id),
          pins: Object.fromEntries(Object.entries(part.pins).map(([pin, node]) => [pin, own(node)])),
        }) as typeof part,
    ),
  };
  const taken = {
    ...other,
    parts: [
      ...other.parts,
      { id: 'NW1', kind: 'wire' as const, name: 'Another wire', pins: { a: 'z-acc', b: 'z-f33-in' } },
    ],
  };
  const found = foundOn(rests, taken);
  expect(found.F32).toBe('z-F32');
  const started = startedOn(plan, rests, found, taken, 'there');
  if (!started.ok) throw new Error('not started');
  const looked = examine(taken, started.plan);
  expect(looked.played.stuck).toBeNull();
  expect(Object.keys(started.plan.unverified!)).toContain('z-F32');
  expect(looked.findings.filter(({ kind }) => kind === 'unknowns').length).toBeGreaterThan(3);
  expect(looked.played.after.parts.filter(({ id }) => id === 'NW1')).toHaveLength(1);
  const { F32: _gone, ...less } = found;
  expect(startedOn(plan, rests, less, taken, 'there')).toMatchObject({
    ok: false,
    missing: [expect.objectContaining({ id: 'F32' })],
  });
});

test('where nothing is drawn: what the change touches is a circuit, and what is not known is listed', () => {
  const { circuit, unknown } = littleCircuit(
    {
      nominalVolts: 12,
      load: 'Roof fan',
      count: 2,
      amps: 2,
      fuse: 'Fuse 12',
      fuseAmps: 10,
      family: 'mini',
      supplyAmps: null,
      supplySource: '',
      wire: 'Red wire',
      metres: null,
      mm2: null,
      endA: '',
      endB: '',
      live: 'always',
    },
    'little',
  );
  expect(unknown.join(' ')).toMatch(/supply before Fuse 12.*Size or length of Red wire.*Other circuits/);
  const plan = planOf([cut('WI')], { circuit, unknown: [...unknown] });
  const looked = examine(circuit, plan);
  expect(looked.findings.map(({ kind }) => kind)).toEqual(
    expect.arrayContaining(['live-ends', 'functions', 'unknowns']),
  );
  expect(looked.findings.filter(({ kind }) => kind === 'unknowns').length).toBeGreaterThanOrEqual(
    unknown.length,
  );
  expect(carryOut(plan, [], null, everything(plan, circuit))).toMatchObject({
    ok: true,
    files: [{ circuit: 'little' }],
  });
});

test('the drawing of a change keeps what it touches with its way from the battery and back', () => {
  const parts = concerned(JOINED, ['W36']);
  for (const id of ['B1', 'MF2', 'W2', 'F32', 'W36']) expect(parts.has(id)).toBe(true);
  expect(parts.has('H3')).toBe(false);
  const small = reducedTo(JOINED, parts);
  expect(small.parts.length).toBeLessThan(JOINED.parts.length / 2);
  const points = new Set(small.nodes.map(({ id }) => id));
  for (const part of small.parts)
    for (const node of Object.values(part.pins as Record<string, string>))
      expect(points.has(node)).toBe(true);
});

test('a finding is known again after the plan was changed elsewhere', () => {
  const keys = (edits: readonly PlanEdit[]) => examine(HATCH, planOf(edits)).findings.map(findingKey);
  const [one] = keys([cut('W51')]).filter((key) => key.startsWith('live-ends'));
  expect(keys([cut('W51'), join('l3-minus', 'g5')])).toContain(one);
});
