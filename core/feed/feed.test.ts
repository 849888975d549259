/** Feeds found, refused and left open; supply sides, supplies as typed, the drain of a box, the survey as a file. */
import { BATTERY, circuitOf, demoCircuit, fuse, lamp, wire } from '../../testing/circuits';
import { boxOf } from '../../testing/panels';
import { mergeCircuits } from '../circuit';
import type { CircuitFile, CircuitPart, Slot } from '../format';
import valid from '../format/generated/surveyFile';
import { KEY_STATES, type KeyState, type SlotReading } from '../limits';
import { CircuitModel } from '../network';
import {
  branchDrain,
  type Candidate,
  candidateText,
  engineVariant,
  type FeedAsk,
  type FeedScene,
  feedKey,
  findFeeds,
  groupsOf,
  readSupply,
  relayVariant,
  type SaidOfSupply,
  type SlotDrop,
  supplySide,
  surveyCsv,
  surveyFile,
  surveyRow,
  WHEN,
  wantsRelay,
} from '.';
import { simulate } from './simulated';

const PANEL = 'seat-box';
const ask = (when: string, more: Partial<FeedAsk> = {}): FeedAsk => ({
  amps: 5,
  startAmps: null,
  purpose: 'roof fan',
  wanted: WHEN.find(({ id }) => id === when)!.wanted,
  place: 'cool',
  duty: 'for-good',
  taps: ['mini'],
  ...more,
});

let made = 0;
const reading = (
  slot: string,
  state: KeyState,
  live: boolean | 'dim',
  more: Partial<SlotReading> = {},
): SlotReading => ({
  id: `r${made++}`,
  panel: PANEL,
  slot,
  end: 'feed',
  value: { lamp: live === 'dim' ? 'dim' : live ? 'lit' : 'off' },
  state,
  fuseOut: false,
  testerProved: true,
  ...more,
});

/** Readings in the order off, waited, accessory, run, crank, running; a dot for what was not read. */
const read = (slot: string, pattern: string): SlotReading[] =>
  [...pattern].flatMap((at, index) => (at === '.' ? [] : [reading(slot, KEY_STATES[index]!, at === 'L')]));

/** Both holes with the fuse out: the first live where it should be, the other dead. */
const holes = (
  slot: string,
  states: readonly KeyState[],
  live: readonly [boolean, boolean] = [true, false],
) =>
  states.flatMap((state) => [
    reading(slot, state, live[0], { end: 'first', fuseOut: true }),
    reading(slot, state, live[1], { end: 'second', fuseOut: true }),
  ]);

const ROOM: SaidOfSupply = {
  parts: [{ name: 'main fuse', ratingAmps: 60 }],
  onAmps: 10,
  measured: null,
};

const scene = (
  slots: readonly Partial<Slot>[],
  readings: readonly SlotReading[],
  more: Partial<FeedScene> = {},
): FeedScene => ({
  panels: boxOf(slots.length, slots.length, (index) => slots[index]!).panels,
  readings,
  models: [],
  nominalVolts: 12,
  said: {},
  ...more,
});

const of = (found: readonly Candidate[], slot: string) => found.find((one) => one.slot.id === slot)!;
const refusals = (one: Candidate) => one.against.filter(({ refuses }) => refuses).map(({ id }) => id);

describe('a feed that must die with the key, on a box without circuits', () => {
  // The box of a camper, read in five states; no circuit says anything.
  const box = scene(
    [
      { label: 'FAN' },
      { label: 'AUX' },
      { label: 'SRS' },
      { label: 'MOD' },
      { label: 'KEY' },
      { label: '', state: 'empty' },
      { label: 'STP LPS' },
    ],
    [
      ...read('fuse-1', 'LDLL.L'),
      ...read('fuse-2', 'LLLL.L'),
      ...read('fuse-3', 'DDDL.L'),
      ...read('fuse-4', 'DDDD.L'),
      ...read('fuse-5', 'DDLL.L'),
      ...read('fuse-7', 'DDDL.L'),
      reading('fuse-1', 'off-waited', false, { afterSeconds: 200 }),
    ],
  );
  const found = findFeeds(box, ask('key'));
  test('each is refused for its own reason, in a sentence', () => {
    expect(refusals(of(found, 'fuse-1'))).toEqual(['delayed']);
    expect(of(found, 'fuse-1').sentence).toContain('3 min');
    expect(refusals(of(found, 'fuse-2'))).toEqual(['states']);
    expect(of(found, 'fuse-2').sentence).toBe(
      'Live with key off and key off, after the wait, where it has to be dead.',
    );
    expect(refusals(of(found, 'fuse-3'))).toEqual(['safety']);
    expect(refusals(of(found, 'fuse-4'))).toEqual(['module', 'states']);
    expect(refusals(of(found, 'fuse-6'))).toEqual(['empty']);
    expect(refusals(of(found, 'fuse-7'))).toEqual(['road-lamps']);
  });
  test('the one that is left is not offered as sure: what is on it and which way a tap goes are asked', () => {
    const [first] = found;
    expect(first).toMatchObject({ slot: { id: 'fuse-5' }, verdict: 'to-read', unread: [] });
    expect(first!.headroom.verdict).toBe('incomplete');
    expect(first!.roomWords).toContain('other fuses');
    expect(first!.side.stands).toBe('unread');
    expect(first!.side.sentence).toContain('both holes');
  });
  test('once both are known it fits, and the note says from where each is known', () => {
    const sure = findFeeds(
      {
        ...box,
        readings: [...box.readings, ...holes('fuse-5', ['run', 'running'])],
        said: { [feedKey(PANEL, 'fuse-5')]: ROOM },
      },
      ask('key'),
    );
    expect(sure[0]).toMatchObject({ slot: { id: 'fuse-5' }, verdict: 'fits', addedFuse: 7.5 });
    // The terminal of a mini fuse ends at 30 A: 0.8 × 30 − 10; the main fuse has 38 left.
    expect(sure[0]!.headroom.limiting?.name).toContain('terminal');
    expect(sure[0]!.headroom.roomAmps).toBeCloseTo(14, 9);
    const text = candidateText(sure[0]!, ask('key'));
    expect(text).toContain('key at run live (read)');
    expect(text).toContain('main fuse: 10 A + 5 A = 15 A of 60 A');
  });
  test('a clamp counts instead of what was said', () => {
    const supply = readSupply({ parts: 'main fuse 60 A', on: 'radio 2 A', clamp: '41 A' }, 12);
    expect(supply.said).toMatchObject({ measured: { amps: 41, how: 'clamp' } });
    const [one] = findFeeds(
      { ...box, said: { [feedKey(PANEL, 'fuse-5')]: supply.said! } },
      ask('key', { amps: 8 }),
    ).filter(({ slot }) => slot.id === 'fuse-5');
    // 41 + 8 of 0.8 × 60.
    expect(one).toMatchObject({ verdict: 'refused' });
    expect(one!.sentence).toContain('main fuse (clamp) would carry 49 A of 48 A');
  });
});

test('it fits only where every wished state is known and stands as wished, over all readings of six states', () => {
  for (const { id, wanted } of WHEN) {
    for (let code = 0; code < 3 ** 6; code++) {
      let rest = code;
      const pattern = Array.from({ length: 6 }, () => {
        const at = '.LD'[rest % 3]!;
        rest = Math.floor(rest / 3);
        return at;
      }).join('');
      const wishes = KEY_STATES.slice(0, 6).map((state) => wanted[state]);
      const right = wishes.every(
        (wish, index) => wish === undefined || pattern[index] === (wish === 'live' ? 'L' : 'D'),
      );
      const wrong = wishes.some(
        (wish, index) =>
          wish !== undefined && pattern[index] !== '.' && pattern[index] !== (wish === 'live' ? 'L' : 'D'),
      );
      const live = KEY_STATES.filter((state, index) => wanted[state] === 'live' && pattern[index] === 'L');
      const [one] = findFeeds(
        scene([{}], [...holes('fuse-1', live), ...read('fuse-1', pattern)], {
          said: { [feedKey(PANEL, 'fuse-1')]: ROOM },
        }),
        ask(id),
      );
      if (one!.verdict === 'fits') expect([id, pattern, right]).toEqual([id, pattern, true]);
      if (wrong) expect([id, pattern, one!.verdict]).toEqual([id, pattern, 'refused']);
    }
  }
});

describe('what speaks against a slot', () => {
  const GOOD = [...read('fuse-1', 'DDLLLL'), ...holes('fuse-1', ['run', 'running', 'crank'])];
  const one = (slot: Partial<Slot>, more: Partial<FeedAsk> = {}, readings: readonly SlotReading[] = GOOD) =>
    findFeeds(scene([slot], readings, { said: { [feedKey(PANEL, 'fuse-1')]: ROOM } }), ask('key', more))[0]!;
  test('nothing, where all is known', () => expect(one({}).verdict).toBe('fits'));
  test.each([
    [{ label: 'ABS' }, {}, 'safety', 'no tap'],
    [{ label: 'EPS' }, {}, 'safety', 'no tap'],
    [{ label: 'BRK', meaning: 'Stop lamps' }, {}, 'road-lamps', 'Stop lamps'],
    [{ family: 'low-profile-mini' }, {}, 'tap', 'looks alike and does not seat'],
    [{ family: 'micro-2' }, {}, 'tap', 'No tap for micro 2'],
    [{}, { amps: 31 }, 'added-fuse', 'No mini fuse carries 31 A'],
    [{}, { amps: 15 }, 'headroom', 'would carry 25 A of 24 A'],
    [{ state: 'spare' }, {}, 'empty', 'stock'],
    [{ state: 'abandoned' }, {}, 'empty', 'Trace it first'],
  ] as const)('%j %j: %s', (slot, more, id, words) => {
    const found = one(slot, more);
    expect(refusals(found)).toContain(id);
    expect(found.sentence).toContain(words);
  });
  test('a small blade does not do on 48 V', () => {
    const found = findFeeds({ ...scene([{}], GOOD), nominalVolts: 48 }, ask('key'))[0]!;
    expect(refusals(found)).toContain('volts');
  });
  test.each([
    [{ state: 'not-ordered' }, 'empty'],
    [{ state: 'tapped' }, 'empty'],
    [{ label: 'HLP L', meaning: 'Left dipped beam' }, 'road-lamps'],
  ] as const)('%j is minded and not refused', (slot, id) => {
    const found = one(slot);
    expect(refusals(found)).toEqual([]);
    expect(found.against.map((reason) => reason.id)).toContain(id);
  });
  test('cranking drops it out', () => {
    const drops = [...read('fuse-1', 'DDLLDL'), ...holes('fuse-1', ['run', 'running'])];
    expect(one({}, { wanted: WHEN.find(({ id }) => id === 'ignition')!.wanted }, drops).sentence).toContain(
      'Drops out while cranking',
    );
  });
  test('both holes live are two feeds: stop', () => {
    const two = [...GOOD, ...holes('fuse-1', ['run'], [true, true])];
    expect(refusals(one({}, {}, two))).toContain('two-feeds');
  });
  test('dim says resistance, or a pulse', () => {
    expect(refusals(one({}, {}, [...GOOD, reading('fuse-1', 'run', 'dim')]))).toContain('weak');
  });
  test('a start above a rating is said, and refuses nothing', () => {
    const found = one({}, { startAmps: 55 });
    expect(refusals(found)).toEqual([]);
    expect(found.against.find(({ id }) => id === 'start')?.words).toContain('main fuse carries 65 A of 60 A');
  });
  test('the fuse of the tap is of the family of its slot', () => {
    // 24 A ÷ 0.8 = 30 A: a mini fuse ends there, a regular one does not.
    expect(one({}, { amps: 24 }).addedFuse).toBe(30);
    expect(one({}, { amps: 25 }).addedFuse).toBeNull();
    expect(refusals(one({}, { amps: 25 }))).toContain('added-fuse');
    expect(one({ family: 'strip-small' }, { taps: [] }).addedFuse).toBeNull();
  });
  test('what is on for seconds may use all of a rating', () => {
    expect(one({}, { duty: 'seconds' }).headroom.roomAmps).toBeCloseTo(30 - 10, 9);
    expect(one({}, { amps: 10, duty: 'seconds' }).addedFuse).toBe(10);
  });
  test('an empty hole carries nothing yet, however much is on its supply', () => {
    const busy = { ...ROOM, onAmps: 28 };
    const [hole] = findFeeds(
      scene([{ state: 'not-ordered' }], GOOD, { said: { [feedKey(PANEL, 'fuse-1')]: busy } }),
      ask('key'),
    );
    expect(hole!.headroom.parts.map(({ presentAmps }) => presentAmps)).toEqual([28, 0]);
    expect(refusals(hole!)).toEqual([]);
  });
  test('in a hot bay seven tenths count', () => {
    expect(one({}, { place: 'hot' }).headroom.roomAmps).toBeCloseTo(0.7 * 30 - 10, 9);
  });
});

describe('supply side of a slot', () => {
  const slot = boxOf(1, 1).panels[0]!.slots[0]!;
  const side = (readings: readonly SlotReading[], wanted: readonly KeyState[] = ['run']) =>
    supplySide(slot, readings, wanted, 12);
  test.each([
    ['nothing read', [], 'unread', null],
    ['first live, second dead', holes('fuse-1', ['run']), 'proved', 'first'],
    ['second live, first dead', holes('fuse-1', ['run'], [false, true]), 'proved', 'second'],
    ['both live', holes('fuse-1', ['run'], [true, true]), 'two-feeds', null],
    ['both dead', holes('fuse-1', ['run'], [false, false]), 'dead', null],
    ['one hole only', holes('fuse-1', ['run']).slice(0, 1), 'unread', 'first'],
    ['another state only', holes('fuse-1', ['running']), 'unread', 'first'],
    [
      'alive on one side in one state, on the other in another',
      [...holes('fuse-1', ['run']), ...holes('fuse-1', ['off'], [false, true])],
      'two-feeds',
      null,
    ],
    [
      'the other hole alive with the lights',
      [...holes('fuse-1', ['run']), ...holes('fuse-1', ['function-on'], [true, true])],
      'two-feeds',
      null,
    ],
  ] as const)('%s', (_, readings, stands, end) => {
    expect(side(readings)).toMatchObject({ stands, end });
  });
  test('in every state in which it should be live', () => {
    expect(side(holes('fuse-1', ['run']), ['run', 'running'])).toMatchObject({
      stands: 'unread',
      missing: ['running'],
    });
  });
  test('the map alone is no proof', () => {
    const mapped = { ...slot, pins: [{ role: 'feed', x: 3, y: 14 }] };
    expect(supplySide(mapped, [], ['run'], 12)).toMatchObject({
      stands: 'by-map',
      end: 'second',
      missing: ['run'],
    });
  });
});

describe('what the circuits say', () => {
  const VAN = ['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'] as const;
  const model = (name: (typeof VAN)[number]) => new CircuitModel(demoCircuit(name));
  const live = (name: (typeof VAN)[number], node: string) =>
    [...simulate(model(name), node).states].flatMap(([state, stands]) => (stands === 'live' ? [state] : []));
  // By hand from the drawings: K1 closes in accessory and run, K2 in run; neither in crank.
  test.each([
    ['van-proving-cabinet', 'f33-in', ['accessory', 'run', 'running']],
    ['van-demist', 'run-line', ['run', 'running']],
    ['van-hatch-fridge', 'bay-bus', ['off', 'off-waited', 'accessory', 'run', 'crank', 'running']],
    ['van-demist', 'r2-87', ['function-on']],
  ] as const)('%s, %s', (name, node, states) => {
    expect(live(name, node)).toEqual(states);
  });
  test('a timed relay makes it delayed', () => {
    const delayed = circuitOf({
      parts: [
        BATTERY,
        { id: 'K', kind: 'key-contact', name: 'Key', pins: { in: 'plus', out: 'k' }, closedIn: ['run'] },
        {
          id: 'R',
          kind: 'relay',
          name: 'Timer',
          pins: { '30': 'plus', '87': 'fed', '86': 'k', '85': 'minus' },
          timing: { mode: 'delay-off', seconds: 120 },
        },
        fuse('F', 'fed', 'load', 10),
        lamp('L', 'load', 'minus', 12),
      ] as CircuitPart[],
    });
    const { states } = simulate(new CircuitModel(delayed), 'fed');
    expect([states.get('off'), states.get('off-waited'), states.get('run')]).toEqual([
      'live',
      'dead',
      'live',
    ]);
  });
  test('a module that decides it is named, and what it feeds is refused', () => {
    const output: CircuitPart = {
      id: 'MO',
      kind: 'module-output',
      name: 'Body module, output 3',
      pins: { plus: 'plus', minus: 'minus', out: 'fed' },
      side: 'high',
      rule: [{ key: ['run'] }],
      duty: 0.4,
    };
    const circuit: CircuitFile = circuitOf({
      parts: [
        BATTERY,
        output,
        { ...fuse('F', 'fed', 'load', 10), slot: { panel: PANEL, slot: 'fuse-1' } } as CircuitPart,
        lamp('L', 'load', 'minus', 12),
      ],
    });
    const [found] = findFeeds({ ...scene([{}], []), models: [new CircuitModel(circuit)] }, ask('key'));
    expect(refusals(found!)).toContain('module');
    expect(found!.sentence).toContain('Body module, output 3, pulsed');
  });
  test('the reading counts where the circuit says otherwise, and the difference is shown', () => {
    const circuit = circuitOf({
      parts: [
        BATTERY,
        { id: 'K', kind: 'key-contact', name: 'Key', pins: { in: 'plus', out: 'k' }, closedIn: ['run'] },
        { ...fuse('F', 'k', 'load', 10), slot: { panel: PANEL, slot: 'fuse-1' } } as CircuitPart,
        lamp('L', 'load', 'minus', 12),
      ],
    });
    const models = [new CircuitModel(circuit)];
    const quiet = findFeeds({ ...scene([{}], []), models }, ask('key'))[0]!;
    expect([quiet.from, quiet.conflicts, quiet.unread]).toEqual(['circuit', [], []]);
    const loud = findFeeds({ ...scene([{}], [reading('fuse-1', 'off', true)]), models }, ask('key'))[0]!;
    expect([loud.from, loud.conflicts]).toEqual(['both', ['off']]);
    expect(loud.states.find(({ state }) => state === 'off')).toMatchObject({
      read: 'live',
      simulated: 'dead',
      stands: 'live',
      differs: true,
    });
    expect(refusals(loud)).toContain('states');
    expect(loud.against.map(({ words }) => words).join()).toContain(
      'The circuit says otherwise with key off',
    );
  });
  test('every part that carries it in any state counts: two ways by the key', () => {
    const key = (
      id: string,
      to: string,
      closedIn: ('accessory' | 'run')[],
      carriesAmps: number,
    ): CircuitPart => ({
      id,
      kind: 'key-contact',
      name: id,
      pins: { in: 'plus', out: to },
      closedIn,
      carriesAmps,
    });
    const circuit = circuitOf({
      parts: [
        BATTERY,
        key('K1', 'bus', ['accessory'], 20),
        key('K2', 'bus', ['run'], 4),
        { ...fuse('F', 'bus', 'load', 10), slot: { panel: PANEL, slot: 'fuse-1' } } as CircuitPart,
        lamp('L', 'load', 'minus', 120),
      ],
    });
    const found = findFeeds(
      { ...scene([{}], []), models: [new CircuitModel(circuit)] },
      ask('accessory'),
    )[0]!;
    expect(found.headroom.parts.map(({ name }) => name)).toEqual(expect.arrayContaining(['K1', 'K2']));
    expect(refusals(found)).toEqual(['headroom']);
  });
  test('circuits that share a switch or a load are one, others add up', () => {
    const files = VAN.map((name) => demoCircuit(name));
    expect(groupsOf(files).map((group) => group.length)).toEqual([1, 1, 1]);
    const twin = { ...files[0]!, id: 'twin' };
    expect(groupsOf([...files, twin]).map((group) => group.map(({ id }) => id))).toContainEqual([
      'van-proving-cabinet',
      'twin',
    ]);
    // Main fuse 2 feeds the cabinet and the hatch box: what flows in it at most is what the joined circuit says.
    const panels = boxOf(1, 1, () => ({ id: 'fuse-34', number: '34' })).panels.map((panel) => ({
      ...panel,
      id: 'bay',
    }));
    const at = (models: readonly CircuitModel[]) =>
      findFeeds(
        { panels, readings: [], models, nominalVolts: 12, said: {} },
        ask('always'),
      )[0]!.headroom.parts.find(({ name }) => name === 'Main fuse 2 (60 A)')!.presentAmps!;
    const apart = at(files.map((file) => new CircuitModel(file)));
    const joined = at([new CircuitModel(mergeCircuits(files).circuit)]);
    expect(apart).toBeGreaterThanOrEqual(joined - 0.01);
    expect(apart / joined).toBeLessThan(1.03);
  });
});

describe('more than a feed gives, and only while the engine runs', () => {
  const readings = [...read('fuse-1', 'DDLLDL'), ...holes('fuse-1', ['run', 'running'])];
  const weak: SaidOfSupply = { parts: [{ name: 'key fuse', ratingAmps: 10 }], onAmps: 3, measured: null };
  const box = scene([{ label: 'ACC' }], readings, { said: { [feedKey(PANEL, 'fuse-1')]: weak } });
  test('a relay is offered: coil from the feed that is too weak, load from the battery', () => {
    const pump = ask('key', { amps: 12, purpose: 'pump' });
    const found = findFeeds(box, pump);
    expect(refusals(found[0]!)).toEqual(['headroom']);
    expect(wantsRelay(found)).toBe(true);
    const variant = relayVariant(box, pump, 4)!;
    // 12 ÷ 0.8 = 15 A; 12 A × 8 m in 0.36 V: 3.75 mΩ/m: 6 mm².
    expect(variant).toMatchObject({ loadFuse: 15, wireMm2: 6, coil: { slot: { id: 'fuse-1' } } });
    expect(variant.steps.join(' ')).toContain('180 mm');
  });
  test('a coil has no feed either where the only one is live with the key off', () => {
    const constant = scene([{}], read('fuse-1', 'LLLLLL'));
    expect(relayVariant(constant, ask('key', { amps: 12 }), null)).toBeNull();
  });
  test('a warming jacket that runs with the engine: no slot does it, a switch behind a switched one does', () => {
    const jacket = ask('engine', { purpose: 'warming jacket' });
    expect(findFeeds(box, jacket)[0]!.verdict).toBe('refused');
    expect(engineVariant(box, jacket)!.sentence).toContain('13.3 V');
    expect(engineVariant({ ...box, nominalVolts: 24 }, jacket)!.sentence).toContain('26.6 V');
    expect(engineVariant(box, ask('key'))).toBeNull();
  });
});

test.each([
  [{ clamp: '1,200' }, 'clamp'],
  [{ clamp: '-3' }, 'clamp'],
  [{ parts: 'main fuse' }, 'parts'],
  [{ on: 'radio lots' }, 'on'],
  [{ millivolts: '5' }, 'rating'],
  [{ millivolts: '0', rating: '30' }, 'millivolts'],
  [{ millivolts: '1e9', rating: '30' }, 'millivolts'],
] as const)('a supply typed as %j is refused in words', (typed, field) => {
  const { problems } = readSupply(typed, 12);
  expect(Object.keys(problems)).toContain(field);
  for (const words of Object.values(problems)) expect(words).not.toMatch(/NaN|undefined/);
});

describe('a battery flat after two days, through the millivolts of one fuse', () => {
  const panel = boxOf(4, 4, (index) => ({
    label: ['CLOCK', 'VENT', 'PUMP', 'STEP'][index]!,
    ratingAmps: [5, 15, 10, 10][index]!,
  })).panels[0]!;
  const drop = (slot: string, millivolts: number, ratingAmps: number): SlotDrop => ({
    id: slot,
    panel: PANEL,
    slot,
    volts: millivolts / 1000,
    ratingAmps,
    family: 'mini',
  });
  test('the branch that draws is named first', () => {
    // 0.3 mV ÷ 17.5 mΩ = 17 mA; 5.2 mV ÷ 4.7 mΩ = 1.1 A; none on the third.
    const drain = branchDrain(panel, [
      drop('fuse-1', 0.3, 5),
      drop('fuse-2', 5.2, 15),
      drop('fuse-3', 0, 10),
    ]);
    expect(drain.branches[0]).toMatchObject({ slot: { id: 'fuse-2' } });
    expect(drain.branches[0]!.amps).toBeCloseTo(1.106, 3);
    expect(drain.totalAmps).toBeCloseTo(1.1235, 3);
    expect([drain.read, drain.of, drain.next?.id]).toEqual([3, 4, 'fuse-4']);
    expect(drain.sentence).toContain('Hunt fuse 2 (VENT) first: 1.11 A');
    expect(drain.branches.find(({ slot }) => slot.id === 'fuse-3')!.words).toContain('0 mV proves nothing');
  });
  test('the latest reading counts, and nothing read says nothing', () => {
    expect(branchDrain(panel, []).sentence).toBe('Nothing read yet.');
    expect(branchDrain(panel, [drop('fuse-2', 5.2, 15), drop('fuse-2', 0, 15)]).totalAmps).toBe(0);
  });
});

test('a slot of a safety function is read neither in the survey nor for the drain', () => {
  const panel = boxOf(2, 2, (index) => ({ label: ['SRS', 'AUX'][index]! })).panels[0]!;
  expect(surveyRow(panel.slots[0]!, [], 12)).toMatchObject({ barred: true, missing: [] });
  expect(surveyRow(panel.slots[1]!, [], 12).missing.length).toBeGreaterThan(3);
  expect(branchDrain(panel, []).next?.id).toBe('fuse-2');
});

describe('the survey as lines and as a file', () => {
  const slots = [{ label: 'AUX' }, { label: '', state: 'empty' as const }, { label: 'LINGER' }];
  const panel = boxOf(3, 3, (index) => slots[index]!).panels[0]!;
  const readings = [
    ...read('fuse-1', 'LLLLLL'),
    ...holes('fuse-2', ['off', 'run'], [true, false]),
    ...read('fuse-3', 'LDLLLL'),
    reading('fuse-3', 'off-waited', false, { afterSeconds: 95 }),
  ];
  test('a live empty hole tells its feed and its supply side', () => {
    const row = surveyRow(
      panel.slots[1]!,
      readings.filter(({ slot }) => slot === 'fuse-2'),
      12,
    );
    expect(row.states).toEqual({ off: 'live', run: 'live' });
    expect(row.side).toMatchObject({ stands: 'proved', end: 'first' });
    expect(row.finding.possible).toEqual(['constant', 'delayed']);
  });
  test('as CSV and as JSON with its schema', () => {
    const lines = surveyCsv([panel], readings, 12).split('\n');
    expect(lines).toHaveLength(4);
    expect(lines[1]).toContain('constant');
    expect(lines[3]).toContain('delayed, dropped after 95 s');
    const file = surveyFile('Pickup', [panel], readings, 12);
    expect([valid(file), valid.errors]).toEqual([true, null]);
    expect(file.slots[2]).toMatchObject({ feed: 'delayed', droppedAfterSeconds: 95 });
  });
});

test('a wire without a size has no rating, so nothing passes through it', () => {
  const circuit = circuitOf({
    parts: [
      BATTERY,
      { ...fuse('MF', 'plus', 'bus', 60) },
      wire('W', 'bus', 'box', 0.01),
      { ...fuse('F', 'box', 'load', 10), slot: { panel: PANEL, slot: 'fuse-1' } } as CircuitPart,
      lamp('L', 'load', 'minus', 12),
    ],
  });
  const found = findFeeds(
    { ...scene([{}], [], { said: {} }), models: [new CircuitModel(circuit)] },
    ask('always'),
  )[0]!;
  expect(found.headroom.verdict).toBe('incomplete');
  expect(found.headroom.missing).toEqual(['the rating of Wire W']);
});
