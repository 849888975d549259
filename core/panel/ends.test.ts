/** Which end of a slot is meant: as the box is held, and which of them is fed. */
import type { Panel, Slot } from '../format/panelSchema';
import type { SlotReading } from '../limits/slotReadings';
import { type DrawnEnd, endsAsHeld, fedEnd, fedEndByHoles } from './ends';
import { slotSentence } from './sentence';
import { triageSlot } from './triage';
import { type Turns, turnPanel } from './turn';

const slotAt = (id: string, x: number, more: Partial<Slot> = {}): Slot => ({
  id,
  type: 'fuse',
  number: id.slice(1),
  label: '',
  family: 'mini',
  state: 'fitted',
  x,
  y: 10,
  width: 6,
  height: 14,
  ...more,
});
const lying: Partial<Slot> = { width: 14, height: 6 };
const box = (...slots: readonly Slot[]): Panel =>
  ({
    id: 'box',
    name: 'Box',
    width: 100,
    height: 40,
    landmark: { name: 'hinge', edge: 'left' },
    slots: [...slots],
  }) as unknown as Panel;

let count = 0;
const read = (end: DrawnEnd, live: boolean, fuseOut = false): SlotReading => {
  count += 1;
  return {
    id: `r${count}`,
    panel: 'box',
    slot: 'f1',
    end,
    value: { lamp: live ? 'lit' : 'off' },
    state: 'off',
    fuseOut,
    testerProved: true,
  };
};

const HELD = ([0, 1, 2, 3] as const).flatMap((turns) =>
  [false, true].flatMap((mirrored) => [
    { turns, mirrored, shape: 'standing', more: {} },
    { turns, mirrored, shape: 'lying', more: lying },
  ]),
);

test.each(HELD)(
  '$shape, $turns quarter turns, mirrored $mirrored: the word is where the end is seen',
  ({ turns, mirrored, more }) => {
    // A pin at the very end that the map calls the first shows where that end goes.
    const pins = [{ role: 'feed', x: more.width ? 1 : 3, y: more.width ? 3 : 1 }];
    const panel = box(slotAt('f1', 30, { ...more, pins }));
    const seen = turnPanel(panel, turns as Turns, mirrored).slots[0]!;
    const [pin] = seen.pins;
    const words = endsAsHeld(panel, 'f1', turns as Turns, mirrored);
    const upright = seen.height >= seen.width;
    const near = upright ? pin!.y < seen.y + seen.height / 2 : pin!.x < seen.x + seen.width / 2;
    expect(words.first).toBe(upright ? (near ? 'upper' : 'lower') : near ? 'left' : 'right');
    expect(new Set([words.first, words.second]).size).toBe(2);
  },
);

test('the map says which end is fed by a pin, or does not', () => {
  expect(fedEnd(slotAt('f1', 0))).toBeNull();
  expect(fedEnd(slotAt('f1', 0, { pins: [{ role: 'feed', x: 3, y: 12 }] }))).toBe('second');
  expect(fedEnd(slotAt('f1', 0, { ...lying, pins: [{ role: 'in', x: 2, y: 3 }] }))).toBe('first');
});

describe('a slot whose fed end nobody knows', () => {
  const held = { first: 'lower', second: 'upper' } as const;
  const judge = (...readings: readonly SlotReading[]) => triageSlot(slotAt('f1', 0), readings, 12, held);
  test('one end live: it must be the fed one, or something feeds it backwards; said in the words of the hand', () => {
    const { verdict, sentence } = judge(read('first', true), read('second', false));
    expect(verdict).toBe('open');
    expect(sentence).toContain('Only the lower end is live, so that must be its fed side');
    expect(sentence).toContain('backwards');
  });
  test('both live or both dark need no side', () => {
    expect(judge(read('first', true), read('second', true)).verdict).toBe('passes');
    expect(judge(read('first', false), read('second', false)).verdict).toBe('awaits-key');
  });
  test('with the fuse out one hole live: that end is fed, and no second feed shows', () => {
    const readings = [
      read('first', true),
      read('second', true),
      read('first', false, true),
      read('second', true, true),
    ];
    expect(fedEndByHoles(readings, 12)).toBe('second');
    const { verdict, sentence } = judge(...readings);
    expect(verdict).toBe('passes');
    expect(sentence).toContain('The upper end is the fed one');
  });
  test('with the fuse out both holes live: fed from elsewhere, with where to look', () => {
    const { verdict, sentence, next } = judge(
      read('first', true),
      read('second', true),
      read('first', true, true),
      read('second', true, true),
    );
    expect(verdict).toBe('second-feed');
    expect(sentence).toContain('fed from elsewhere');
    expect(next).toMatch(/splice|tap/);
  });
});

test('a hole of which nobody has said what it holds is counted, and never called empty', () => {
  const row = (states: readonly Slot['state'][]) =>
    box(...states.map((state, index) => slotAt(`f${index + 1}`, index * 8, { state })));
  const sentence = (...states: readonly Slot['state'][]) =>
    slotSentence(turnPanel(row(states), 0), `f${states.length}`);
  expect(sentence('unknown', 'fitted')).toContain(
    'second hole from the hinge, counting 1 that may be empty or not',
  );
  expect(sentence('unknown', 'fitted')).not.toContain('empty one');
  expect(sentence('empty', 'unknown', 'fitted')).toContain(
    'counting the empty one and 1 that may be empty or not',
  );
  expect(sentence('unknown', 'fitted')).toContain('right of fuse hole 1');
});
