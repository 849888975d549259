/** Editing in steps that can be taken back, and slots as CSV in both directions. */
import fc from 'fast-check';
import { boxOf } from '../../testing/panels';
import { checkPanelSet } from '../format/checkPanelSet';
import type { Slot } from '../format/panelSchema';
import { CSV_COLUMNS, csvRows, previewCsv, slotsToCsv } from './csv';
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
    slot: fc.constantFrom(...box.slots.map((slot) => slot.id)),
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
  test('what is written is read back the same', () => {
    const text = fc.string({ maxLength: 20 }).map((value) => value.replace(/\s+/g, ' ').trim());
    const word = fc
      .stringMatching(/^[a-z0-9 ,"]{1,12}$/)
      .map((value) => value.trim())
      .filter((value) => value !== '');
    const someSlot = fc.record({
      label: text,
      meaning: word,
      ratingAmps: fc.constantFrom(5, 7.5, 10, 30),
      functions: fc.array(word, { minLength: 1, maxLength: 3 }),
    });
    fc.assert(
      fc.property(fc.array(someSlot, { minLength: 1, maxLength: 12 }), (drafts) => {
        const slots = drafts.map((draft, index): Slot => ({ ...box.slots[index]!, ...draft }));
        const { problems, slots: back } = previewCsv(slotsToCsv(slots));
        expect(problems).toEqual([]);
        expect(back.map((one) => one.slot)).toEqual(slots);
      }),
      { numRuns: 80 },
    );
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
