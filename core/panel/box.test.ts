/** Verdicts, feeds, audit, completeness and the swap rule: what a box says when it is read slot by slot. */
import fc from 'fast-check';
import { demoCircuit, demoText } from '../../testing/circuits';
import { classifyFeed } from '../feed';
import { checkPanelSetText } from '../format/checkPanelSet';
import type { CircuitPart } from '../format/circuitSchema';
import type { Panel, Slot } from '../format/panelSchema';
import { colourOf } from '../limits/fuseFamilies';
import { KEY_STATES, type KeyState, liveness, type SlotEnd, type SlotReading } from '../limits/slotReadings';
import { auditSlot, settledIn, unaccounted } from './audit';
import { swapBar, swapPairs } from './swap';
import { countVerdicts, triageOrder, triageSlot } from './triage';

let count = 0;
function reading(
  slot: string,
  end: SlotEnd,
  lamp: 'lit' | 'dim' | 'off',
  more: Partial<SlotReading> = {},
): SlotReading {
  count += 1;
  return {
    id: `r${count}`,
    panel: 'box',
    slot,
    end,
    value: { lamp },
    state: 'off',
    fuseOut: false,
    testerProved: true,
    ...more,
  };
}
const both = (slot: string, feed: 'lit' | 'off', load: 'lit' | 'off', more: Partial<SlotReading> = {}) => [
  reading(slot, 'feed', feed, more),
  reading(slot, 'load', load, more),
];
const fuse: Slot = {
  id: 'f1',
  type: 'fuse',
  number: '1',
  label: 'A',
  family: 'mini',
  ratingAmps: 10,
  state: 'fitted',
  x: 0,
  y: 0,
  width: 6,
  height: 12,
};

describe('the played box: nine lit on both sides, one on one side, two dark, one of the nine pulled and still live', () => {
  const slots = Array.from({ length: 12 }, (_, i) => `f${i + 1}`);
  const readings = new Map(
    slots.map((slot, i) => [
      slot,
      i < 9 ? both(slot, 'lit', 'lit') : i === 9 ? both(slot, 'lit', 'off') : both(slot, 'off', 'off'),
    ]),
  );
  readings.get('f4')!.push(reading('f4', 'load', 'lit', { fuseOut: true }));
  const results = slots.map((slot) => triageSlot(fuse, readings.get(slot)!, 12));

  test('eight provisional passes, one suspected open, two awaiting the key, one fed from elsewhere', () => {
    const { verdicts, sentence } = countVerdicts(results);
    expect(verdicts).toMatchObject({ passes: 8, open: 1, 'awaits-key': 2, 'second-feed': 1 });
    expect(sentence).toBe(
      '8 provisional passes, 1 suspected open, 2 await the right key position, 1 fed from elsewhere',
    );
  });
  test('a pass by lamp is never more than provisional, and says why', () => {
    expect(results[0]).toMatchObject({ verdict: 'passes', provisional: true });
    expect(results[0]?.sentence).toContain('A second feed behind it would look the same');
  });
  test('without the tester proved it says so and asks for it', () => {
    const unproved = triageSlot(fuse, both('f1', 'lit', 'lit', { testerProved: false }), 12);
    expect(unproved.sentence).toContain('the tester was not proved first');
    expect(unproved.next).toContain('Prove the tester');
  });
});

describe('single verdicts', () => {
  test.each([
    ['lit', 'off', 'run', 'open'],
    ['off', 'lit', 'run', 'fed-backwards'],
    ['off', 'off', 'run', 'not-fed'],
    ['off', 'off', 'off', 'awaits-key'],
    ['lit', 'lit', 'run', 'passes'],
  ] as const)('feed %s, load %s, key %s: %s', (feed, load, state, verdict) => {
    expect(triageSlot(fuse, both('f1', feed, load, { state }), 12).verdict).toBe(verdict);
  });
  test('a slot with a constant feed that is dark with the key off is not waiting for the key', () => {
    expect(triageSlot({ ...fuse, feed: 'constant' }, both('f1', 'off', 'off'), 12).verdict).toBe('not-fed');
  });
  test.each([
    ['crank', 'run', 'awaits-key', 'Read again: cranking.'],
    ['load-side', 'run', 'awaits-key', 'Read again: key at run, what it serves switched on.'],
    ['run', 'accessory', 'awaits-key', 'Read again: key at run.'],
    ['lights', 'run', 'awaits-key', 'Read again with the lights on.'],
    ['run', 'run', 'not-fed', 'Look upstream.'],
    ['accessory', 'accessory', 'not-fed', 'Look upstream.'],
    ['unknown', 'off', 'awaits-key', 'Read again with the key at run.'],
    ['unknown', 'run', 'not-fed', 'Look upstream.'],
  ] as const)('a slot fed by %s, dark with %s: %s', (feed, state, verdict, next) => {
    const result = triageSlot({ ...fuse, feed }, both('f1', 'off', 'off', { state }), 12);
    expect(result).toMatchObject({ verdict, next });
  });
  test('volts at both ends tell a fuse that loses some, and a load side above its feed', () => {
    const pair = (feed: number, load: number) =>
      triageSlot(
        fuse,
        [
          { ...reading('f1', 'feed', 'lit', { state: 'run' }), value: { volts: feed } },
          { ...reading('f1', 'load', 'lit', { state: 'run' }), value: { volts: load } },
        ],
        12,
      );
    expect(pair(12.4, 12.3).verdict).toBe('passes');
    expect(pair(12.4, 10.5)).toMatchObject({ verdict: 'weak' });
    expect(pair(12.4, 10.5).sentence).toContain('1.90 V lost over the fuse');
    expect(pair(12.0, 12.6)).toMatchObject({ verdict: 'fed-backwards' });
    expect(pair(-12.4, -12.3).sentence).toContain('the leads are exchanged');
    expect(pair(12.4, 12.3).sentence).not.toContain('exchanged');
  });
  test('what was read again with a proved tester stands instead of what was read before', () => {
    const before = both('f1', 'lit', 'lit', { state: 'run', testerProved: false });
    const after = both('f1', 'lit', 'lit', { state: 'run' });
    expect(triageSlot(fuse, before, 12).sentence).toContain('not proved');
    expect(triageSlot(fuse, [...before, ...after], 12).sentence).not.toContain('not proved');
  });
  test('with the fuse out, either load end of a three-leg fuse may be the one with a second feed', () => {
    const pair = both('f1', 'lit', 'lit', { state: 'run' });
    const out = (end: SlotEnd, lamp: 'lit' | 'off') =>
      reading('f1', end, lamp, { state: 'run', fuseOut: true });
    expect(triageSlot(fuse, [...pair, out('load', 'off'), out('load-2', 'lit')], 12).verdict).toBe(
      'second-feed',
    );
    const dead = triageSlot(fuse, [...pair, out('load', 'off'), out('load-2', 'off')], 12);
    expect(dead).toMatchObject({ verdict: 'passes', provisional: true });
    expect(dead.sentence).toContain('no second feed behind it');
  });
  test('ends read in different states of the key are no pair', () => {
    const readings = [
      reading('f1', 'feed', 'lit', { state: 'run' }),
      reading('f1', 'load', 'off', { state: 'off' }),
    ];
    expect(triageSlot(fuse, readings, 12).verdict).toBe('half');
  });
  test('one element of a three-leg fuse may be open by itself', () => {
    const readings = [
      ...both('f1', 'lit', 'lit', { state: 'run' }),
      reading('f1', 'load-2', 'off', { state: 'run' }),
    ];
    expect(triageSlot({ ...fuse }, [readings[0]!, readings[2]!, readings[1]!], 12).verdict).toBe('open');
  });
  test('live and dead follow the nominal voltage', () => {
    expect(liveness({ volts: 12 }, 12)).toBe('live');
    expect(liveness({ volts: 12 }, 24)).toBe('weak');
    expect(liveness({ volts: 0.04 }, 12)).toBe('dead');
  });
  test('whatever was read, a verdict comes out, and only a pair of live ends passes', () => {
    const any = fc.record({
      end: fc.constantFrom<SlotEnd>('feed', 'load', 'load-2'),
      lamp: fc.constantFrom('lit' as const, 'dim' as const, 'off' as const),
      state: fc.constantFrom(...KEY_STATES),
      fuseOut: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 8 }), (list) => {
        const readings = list.map(({ end, lamp, state, fuseOut }) =>
          reading('f1', end, lamp, { state, fuseOut }),
        );
        const { verdict } = triageSlot(fuse, readings, 12);
        if (verdict !== 'passes') return;
        const last = readings.findLast((one) => !one.fuseOut)!;
        for (const end of ['feed', 'load'] as const) {
          const at = readings.findLast((one) => one.end === end && !one.fuseOut && one.state === last.state);
          expect(at?.value).toEqual({ lamp: 'lit' });
        }
        expect(readings.some((one) => one.fuseOut && one.end === 'load' && one.value === undefined)).toBe(
          false,
        );
      }),
    );
  });
});

describe('feeds over the states of the key', () => {
  const over = (live: Partial<Record<KeyState, boolean>>) =>
    classifyFeed(
      Object.entries(live).map(([state, on]) =>
        reading('f1', 'feed', on ? 'lit' : 'off', { state: state as KeyState }),
      ),
      12,
    );
  test.each([
    ['constant', { off: true, 'off-waited': true, accessory: true, run: true, crank: true, running: true }],
    ['delayed', { off: true, 'off-waited': false, accessory: true, run: true, crank: true, running: true }],
    [
      'accessory',
      { off: false, 'off-waited': false, accessory: true, run: true, crank: false, running: true },
    ],
    ['run', { off: false, 'off-waited': false, accessory: false, run: true, crank: false, running: true }],
    [
      'ignition',
      { off: false, 'off-waited': false, accessory: false, run: true, crank: true, running: true },
    ],
    ['crank', { off: false, 'off-waited': false, accessory: false, run: false, crank: true, running: false }],
    [
      'module',
      { off: false, 'off-waited': false, accessory: false, run: false, crank: false, running: true },
    ],
  ] as const)('%s', (feed, live) => {
    expect(over(live).feed).toBe(feed);
  });
  test('live with the key off is not constant before the wait, and the wait is what is asked for', () => {
    const finding = over({ off: true, run: true });
    expect(finding.feed).toBe('unknown');
    expect(finding.possible).toEqual(['constant', 'delayed']);
    expect(finding.missing).toEqual(['off-waited']);
    expect(finding.sentence).toContain('Wait for the modules to sleep');
  });
  test('only what would decide is asked for', () => {
    expect(over({ off: false, accessory: false, run: true }).missing).toEqual(['crank']);
  });
  test('dead in every state is a load side until what it serves was switched on', () => {
    const dead = {
      off: false,
      'off-waited': false,
      accessory: false,
      run: false,
      crank: false,
      running: false,
    };
    expect(over(dead)).toMatchObject({ possible: ['load-side', 'dead'], missing: ['function-on'] });
    expect(over({ ...dead, 'function-on': true }).feed).toBe('load-side');
    expect(over({ ...dead, 'function-on': false }).feed).toBe('dead');
  });
  test('a dim feed decides nothing before volts are read under load', () => {
    const readings = [
      reading('f1', 'feed', 'off', { state: 'off' }),
      reading('f1', 'feed', 'dim', { state: 'run' }),
    ];
    const finding = classifyFeed(readings, 12);
    expect(finding).toMatchObject({ feed: 'unknown', missing: ['run'] });
    expect(finding.sentence).toContain('Read volts under load');
  });
  test('what fits no pattern is not forced into one', () => {
    expect(over({ off: true, run: false }).sentence).toMatch(/fits no pattern/i);
  });
});

describe('fitted against specified', () => {
  const audit = (more: Partial<Slot>) => auditSlot({ ...fuse, ...more }, 12);
  test('an overrating is said in percent of the design and of the wire', () => {
    const [item] = audit({ found: { ratingAmps: 15 }, wireLimitAmps: 11 });
    expect(item).toMatchObject({ kind: 'overrated', danger: true });
    expect(item?.words).toContain('150 % of the design');
    expect(item?.words).toContain('136 % of what its wire carries');
    expect(audit({ found: { ratingAmps: 15 } })[0]?.words).toContain('the limit of its wire is not known');
  });
  test('right current, wrong height: rejected', () => {
    const [item] = audit({ found: { ratingAmps: 10, family: 'low-profile-mini' } });
    expect(item).toMatchObject({ kind: 'wrong-height', danger: true });
    expect(item?.words).toContain('Rejected');
    expect(audit({ found: { family: 'regular' } })[0]?.kind).toBe('wrong-family');
  });
  test('a colour means a rating only within a family', () => {
    expect(audit({ found: { ratingAmps: 10, colour: 'blue' } })[0]?.kind).toBe('wrong-colour');
    expect(audit({ found: { ratingAmps: 10, colour: 'red' } })).toEqual([]);
    expect(colourOf('maxi', 40)).toBe('orange');
    expect(colourOf('cartridge-tall', 40)).toBe('green');
    expect(colourOf('strip-small', 40)).toBeNull();
  });
  test('missing, not ordered but fitted, too low, and a blade fuse on 36 V', () => {
    expect(audit({ state: 'missing' })[0]?.kind).toBe('missing');
    expect(audit({ state: 'not-ordered', found: { ratingAmps: 10 } })[0]?.kind).toBe('unasked');
    expect(audit({ found: { ratingAmps: 5 } })[0]?.kind).toBe('underrated');
    expect(auditSlot(fuse, 36)[0]?.kind).toBe('voltage');
    expect(audit({})).toEqual([]);
  });
});

describe('what a box still owes', () => {
  const panels = checkPanelSetText(demoText('van.panel-set.json'));
  const cab = panels.ok
    ? panels.value.panels.find((panel) => panel.id === 'cab')!
    : (null as unknown as Panel);
  test('a hole skipped and a number printed twice are listed', () => {
    const [first, second] = cab.slots
      .filter((slot) => slot.type === 'fuse')
      .sort((a, b) => Number(a.number) - Number(b.number));
    const skipped = { ...cab, slots: cab.slots.filter((slot) => slot.id !== second!.id) };
    expect(
      unaccounted(skipped).some((one) => one.words.includes(`fuse ${second!.number} is not on the map`)),
    ).toBe(true);
    const twice = { ...cab, slots: [...cab.slots, { ...first!, id: 'again' }] };
    expect(unaccounted(twice).some((one) => one.words.includes('stands 2 times'))).toBe(true);
  });
  test('a gap is one line however wide it is, and every missing number is in exactly one', () => {
    const numbered = (numbers: readonly number[]): Panel => ({
      ...cab,
      slots: numbers.map((number) => ({
        ...fuse,
        id: `n${number}`,
        number: String(number),
        confirmed: true,
      })),
    });
    const holes = (numbers: readonly number[]) =>
      unaccounted(numbered(numbers)).flatMap(({ slot, words }) => (slot === null ? [words] : []));
    expect(holes([3, 999_999_999_999])).toEqual([
      'fuse 4 to 999999999998 are not on the map: holes skipped?',
    ]);
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 60 }), { minLength: 1 }), (numbers) => {
        const told = holes(numbers).flatMap((words) => {
          const [from, to = from] = words.match(/\d+/g)!.map(Number) as [number, number?];
          return Array.from({ length: to - from + 1 }, (_, n) => from + n);
        });
        const least = Math.min(...numbers);
        const between = Array.from({ length: Math.max(...numbers) - least }, (_, n) => least + n);
        expect(told).toEqual(between.filter((one) => !numbers.includes(one)));
      }),
    );
  });
  test('a slot stands on one line with all that it owes', () => {
    const bare: Panel = { ...cab, slots: [{ ...fuse, state: 'unknown', functions: [], confirmed: false }] };
    expect(unaccounted(bare).map((one) => one.words)).toEqual([
      `fuse ${fuse.number}: not known whether anything is fitted; which functions it serves is not mapped; unverified here.`,
    ]);
  });
  test('an unlabelled fuse opens a task, an unconfirmed one stays unverified here', () => {
    const bare: Panel = { ...cab, slots: [{ ...fuse, label: '' }] };
    const owed = unaccounted(bare).map((one) => one.words);
    expect(owed.some((words) => words.includes('trace what it serves'))).toBe(true);
    expect(owed.some((words) => words.includes('unverified here'))).toBe(true);
    const whole: Panel = { ...cab, slots: [{ ...fuse, functions: ['Fan'], confirmed: true }] };
    expect(unaccounted(whole)).toEqual([]);
    expect(settledIn(whole)).toEqual({ settled: 1, of: 1, words: '1 of 1 positions settled' });
    expect(settledIn({ ...cab, slots: [...whole.slots, ...bare.slots] })).toMatchObject({
      settled: 1,
      of: 2,
    });
    // Paper speaks of some build: of which one is owed until somebody says it.
    const onPaper = (applies?: string): Panel => ({
      ...whole,
      slots: whole.slots.map((slot) => ({ ...slot, source: 'lid', ...(applies ? { applies } : {}) })),
    });
    expect(unaccounted(onPaper()).map((one) => one.words)).toEqual([expect.stringContaining('which build')]);
    expect(unaccounted(onPaper('from 2016'))).toEqual([]);
  });
  test('a thumb goes through the fuses row by row, and not through holes where nothing was ordered', () => {
    const order = triageOrder(cab.slots);
    expect(order.length).toBeGreaterThan(12);
    expect(order.every((slot) => slot.type === 'fuse')).toBe(true);
    expect(order.some((slot) => ['not-ordered', 'empty', 'spare'].includes(slot.state))).toBe(false);
  });
});

describe('relays that may stand in for one another', () => {
  const circuit = demoCircuit('van-proving-cabinet');
  const relay = circuit.parts.find((part) => part.id === 'R4') as Extract<CircuitPart, { kind: 'relay' }>;
  const twin = { ...relay, id: 'R5', name: 'Relay 5' };
  test('an exact equal is one; other contacts or another coil are not', () => {
    expect(swapBar(relay, twin)).toBeNull();
    expect(swapBar(relay, { ...twin, coilOhms: 300 })).toContain('coils');
    expect(swapBar(relay, { ...twin, pins: { ...twin.pins, '87a': 'x' } })).toContain('contacts');
    expect(swapBar(relay, { ...twin, contactRatingAmps: 20 })).toContain('different currents');
    expect(swapBar(relay, { ...twin, suppression: 'diode' })).toContain('suppressed differently');
    expect(swapBar(relay, { ...twin, footprint: '30 and 86 exchanged' })).toContain('different places');
    // The number printed on both settles what the map does not know.
    const numbered = { ...relay, partNumber: 'MW-40' };
    expect(swapBar(numbered, { ...twin, suppression: 'diode', partNumber: 'MW-40' })).toBeNull();
  });
  test('none of a safety function, none that feeds one, none that is soldered in, none while it runs unbidden', () => {
    // Nobody has said of the other whether it serves a safety function.
    const { safetyCritical: _, ...unsaid } = twin;
    const donors = (changed: Partial<typeof relay>, unbidden = false) =>
      swapPairs(
        { ...circuit, parts: [...circuit.parts, { ...unsaid, ...changed }] },
        'R4',
        () => [],
        unbidden,
      ).map(({ donor }) => donor);
    expect(donors({})).toEqual(['R5']);
    expect(donors({ safetyCritical: true })).toEqual([]);
    expect(donors({ name: 'ABS pump relay' })).toEqual([]);
    expect(donors({ fixed: true })).toEqual([]);
    expect(donors({}, true)).toEqual([]);
    // The fan behind both serves a safety function: its relay is not moved either.
    const marked = circuit.parts.map((one) => (one.id === 'M1' ? { ...one, safetyCritical: true } : one));
    expect(swapPairs({ ...circuit, parts: [...marked, twin] }, 'R4', () => [])).toEqual([]);
  });
  test('both functions are named, for both must be seen to work again', () => {
    const pairs = swapPairs({ ...circuit, parts: [...circuit.parts, twin] }, 'R4', (part) => [
      `function of ${part}`,
    ]);
    expect(pairs).toEqual([
      { suspect: 'R4', donor: 'R5', functions: ['function of R4', 'function of R5'], sameNumber: false },
    ]);
    expect(swapPairs(circuit, 'F31', () => [])).toEqual([]);
  });
});
