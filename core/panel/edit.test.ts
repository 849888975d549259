/** Editing in steps that can be taken back, and slots as CSV in both directions. */
import fc from 'fast-check';
import { boxOf } from '../../testing/panels';
import { checkPanelSet } from '../format/checkPanelSet';
import type { Slot } from '../format/panelSchema';
import { CSV_COLUMNS, csvChanges, csvRows, previewCsv, slotsToCsv } from './csv';
import { begin, type Change, changed, gridSlots, neededSize, redo, step, undo } from './edit';

const box = boxOf(12, 6).panels[0]!;

const someChange: fc.Arbitrary<Change> = fc.oneof(
  fc.record({
    kind: fc.constant('move' as const),
    slots: fc.subarray(
      box.slots.map((slot) => slot.id),
      { minLength: 1 },
    ),
    dx: fc.double({ min: -300, max: 300, noNaN: true }),
    dy: fc.double({ min: -300, max: 300, noNaN: true }),
  }),
  fc.record({ kind: fc.constant('remove' as const), slots: fc.subarray(box.slots.map((slot) => slot.id)) }),
  fc.record({
    kind: fc.constant('set' as const),
    slots: fc.subarray(box.slots.map((slot) => slot.id)),
    fields: fc.record({ label: fc.string({ maxLength: 10 }), ratingAmps: fc.constantFrom(5, 10, undefined) }),
  }),
);

describe('steps', () => {
  test('twenty edits taken back give the box as it was, and done again the same as before', () => {
    fc.assert(
      fc.property(fc.array(someChange, { minLength: 1, maxLength: 20 }), (changes) => {
        let history = begin(box);
        for (const change of changes) history = step(history, change);
        const end = history.now;
        const steps = history.past.length;
        for (let i = 0; i < steps; i++) history = undo(history);
        expect(history.now).toEqual(box);
        expect(undo(history)).toBe(history);
        for (let i = 0; i < steps; i++) history = redo(history);
        expect(history.now).toEqual(end);
        expect(redo(history)).toBe(history);
      }),
      { numRuns: 60 },
    );
  });
  test('a slot is never moved off the panel, and lands on whole millimetres', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -999, max: 999, noNaN: true }),
        fc.double({ min: -999, max: 999, noNaN: true }),
        (dx, dy) => {
          const [slot] = changed(box, { kind: 'move', slots: ['fuse-1'], dx, dy }).slots;
          expect(slot!.x).toBeGreaterThanOrEqual(0);
          expect(slot!.x + slot!.width).toBeLessThanOrEqual(box.width);
          expect(slot!.y + slot!.height).toBeLessThanOrEqual(box.height);
          expect(slot!.x).toBe(Math.round(slot!.x));
        },
      ),
    );
  });
  test('a new step after taking one back forgets what came after', () => {
    const move: Change = { kind: 'move', slots: ['fuse-1'], dx: 2, dy: 0 };
    const history = step(undo(step(begin(box), move)), { kind: 'remove', slots: ['fuse-2'] });
    expect(history.future).toEqual([]);
    expect(step(history, { kind: 'remove', slots: [] })).toBe(history);
  });
  test('rows and columns in one go are numbered on, named once each, and make a valid file', () => {
    const grid = {
      type: 'fuse',
      family: 'mini',
      rows: 2,
      perRow: 12,
      firstNumber: 1,
      x: 4,
      y: 4,
      gapX: 3,
      gapY: 6,
      upright: true,
    } as const;
    const empty = { ...box, slots: [], width: 20, height: 20 };
    const slots = gridSlots(empty, grid);
    expect(slots.map((slot) => slot.number)).toEqual(Array.from({ length: 24 }, (_, i) => String(i + 1)));
    const panel = { ...empty, slots, ...neededSize({ ...empty, slots }) };
    expect(checkPanelSet({ ...boxOf(1, 1), panels: [panel] }).ok).toBe(true);
    const again = gridSlots(panel, grid);
    expect(again.some((slot) => slots.some((one) => one.id === slot.id))).toBe(false);
  });
});

describe('CSV', () => {
  const text = fc.string({ maxLength: 20 }).map((value) => value.replace(/\s+/g, ' ').trim());
  const word = fc
    .stringMatching(/^[a-z0-9 ,"/|;-]{1,12}$/)
    .map((value) => value.trim())
    .filter((value) => value !== '' && !value.endsWith('\\'));
  const amps = fc.constantFrom(5, 7.5, 10, 30);
  const maybe = <T>(values: fc.Arbitrary<T>) => fc.option(values, { nil: undefined });
  const someSlot = fc.record({
    label: text,
    meaning: maybe(word),
    ratingAmps: maybe(amps),
    secondRatingAmps: maybe(amps),
    wireLimitAmps: maybe(amps),
    colour: maybe(fc.constantFrom('red', 'blue')),
    state: fc.constantFrom('fitted', 'empty', 'unknown', 'not-ordered'),
    stateEvidence: fc.constantFrom('seen on the build list', 'traced to its end'),
    feed: maybe(fc.constantFrom('constant', 'module')),
    functions: maybe(fc.array(word, { minLength: 1, maxLength: 3 })),
    synonyms: maybe(fc.array(word, { minLength: 1, maxLength: 3 })),
    found: maybe(fc.record({ ratingAmps: amps, family: fc.constantFrom('mini', 'regular') })),
    source: maybe(fc.constantFrom('lid', 'sibling-vehicle')),
    confirmed: maybe(fc.boolean()),
    confidence: maybe(fc.constantFrom('sure', 'doubtful')),
    applies: maybe(word),
    pins: maybe(fc.constant([{ role: '30', x: 1, y: 2 }])),
    disputed: maybe(fc.constant([{ source: 'manual', says: '20 A' }])),
  });
  const said = (slot: object) =>
    Object.fromEntries(Object.entries(slot).filter(([, value]) => value !== undefined)) as unknown as Slot;
  const someBox = fc
    .array(someSlot, { minLength: 1, maxLength: 12 })
    .map((drafts) => drafts.map((draft, index) => said({ ...box.slots[index]!, ...draft })));

  test('out and in again into the same box changes nothing, pins and disputes included', () => {
    fc.assert(
      fc.property(someBox, (slots) => {
        const { problems, slots: back } = previewCsv(slotsToCsv(slots), null, slots);
        expect(problems).toEqual([]);
        expect(back.map((one) => one.slot)).toEqual(slots);
        expect(csvChanges(slots, back)).toEqual({ added: [], changed: [], same: slots.length, unnamed: [] });
      }),
      { numRuns: 150 },
    );
  });
  test('into an empty box it brings all that has a column', () => {
    fc.assert(
      fc.property(someBox, (slots) => {
        const { problems, slots: back } = previewCsv(slotsToCsv(slots));
        expect(problems).toEqual([]);
        const bare = slots.map(({ pins: _pins, disputed: _disputed, id: _id, ...slot }) => slot);
        expect(back.map(({ slot: { id: _id, ...slot } }) => slot)).toEqual(bare);
      }),
      { numRuns: 150 },
    );
  });
  test('a name with a stroke in it stays one name; 1/2 and 1-2 are two slots', () => {
    const { slots, problems } = previewCsv('number,functions\n1/2,A/C fan | Heater\n1-2,Step lamp');
    expect(problems).toEqual([]);
    expect(slots.map(({ slot }) => slot.functions)).toEqual([['A/C fan', 'Heater'], ['Step lamp']]);
    expect(new Set(slots.map(({ slot }) => slot.id)).size).toBe(2);
  });
  test('columns that the file does not have stay as they were; an empty cell takes a fact away', () => {
    const before = said({
      ...box.slots[0]!,
      ratingAmps: 10,
      meaning: 'Fan',
      found: { ratingAmps: 15 },
      confirmed: true,
    });
    const rows = previewCsv(`type,number,rating\n${before.type},${before.number},`, null, [
      before,
      box.slots[1]!,
    ]);
    const { ratingAmps: _gone, ...rest } = before;
    expect(rows.slots.map((one) => one.slot)).toEqual([rest]);
    expect(csvChanges([before, box.slots[1]!], rows.slots)).toMatchObject({
      added: [],
      changed: [{ fields: ['rating'] }],
      unnamed: [{ id: box.slots[1]!.id }],
    });
  });
  test('“not ordered” wants a source here as it does everywhere', () => {
    const problems = (evidence: string) =>
      previewCsv(`number,state,evidence\n7,not ordered,${evidence}`).problems.map((one) => one.message);
    expect(problems('')).toEqual([expect.stringContaining('Say how that is known')]);
    expect(problems('empty')).toEqual([expect.stringContaining('does not show that it is “not ordered”')]);
    expect(problems('build list')).toEqual([]);
  });
  test('whatever the text, it never crashes and never half reads a row', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300, unit: 'binary' }), (text) => {
        const preview = previewCsv(text);
        const bad = new Set(preview.problems.map((one) => one.row));
        expect(preview.slots.every((one) => !bad.has(one.row))).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
  test('sixty rows with five different mistakes: five problems by row and column, fifty-five rows to take', () => {
    const rows = Array.from({ length: 60 }, (_, i) => [
      'fuse',
      String(i + 1),
      `L${i + 1}`,
      '10',
      'mini',
      'fitted',
    ]);
    rows[4]![3] = 'ten';
    rows[9]![4] = 'giant';
    rows[19]![1] = '3';
    rows[29]![1] = '';
    rows[39]![5] = 'broken';
    const text = ['type;no;printed;amps;family;state', ...rows.map((row) => row.join(';'))].join('\n');
    const { problems, slots } = previewCsv(text);
    expect(problems.map(({ row, column }) => `${row} ${column}`)).toEqual([
      '6 rating',
      '11 family',
      '21 number',
      '31 number',
      '41 state',
    ]);
    expect(problems[2]?.message).toContain('stood in row 4 already');
    expect(slots).toHaveLength(55);
  });
  test('columns are matched by what people write, or by hand', () => {
    expect(previewCsv('Nr\tColor\tA\n1\tred\t10').matched).toEqual(['number', 'colour', 'rating']);
    expect(previewCsv('foo,bar\n1,2').problems[0]?.message).toContain('Choose which one');
    expect(previewCsv('foo,bar\n1,2', ['number', null]).slots).toHaveLength(1);
    expect(csvRows('a,b\r\n"x, ""y""",2\r\n')).toEqual([
      ['a', 'b'],
      ['x, "y"', '2'],
    ]);
    expect(CSV_COLUMNS).toContain('synonyms');
  });
});
