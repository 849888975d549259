/** Mirroring, drawing for paper, and states of slots with their evidence. */
import fc from 'fast-check';
import { boxOf } from '../../testing/panels';
import { slotSentence, wayToSlot } from './sentence';
import { type SlotStateEntry, stateProblem, withStates } from './slotStates';
import { panelSvg } from './svg';
import { type Turns, turnPanel } from './turn';

const box = boxOf(18, 6, (index) => (index === 7 ? { state: 'empty' } : {})).panels[0]!;
const anyTurn = fc.constantFrom<Turns>(0, 1, 2, 3);

test('mirroring twice, or turning four times, gives what was there; every slot keeps its identity and size', () => {
  fc.assert(
    fc.property(anyTurn, (turns) => {
      const plain = turnPanel(box, turns);
      const mirrored = turnPanel(box, turns, true);
      expect(mirrored.slots.map((one) => one.slot.id)).toEqual(plain.slots.map((one) => one.slot.id));
      mirrored.slots.forEach((seen, index) => {
        const before = plain.slots[index]!;
        expect(seen.width).toBe(before.width);
        expect(seen.y).toBe(before.y);
        expect(plain.width - seen.x - seen.width).toBeCloseTo(before.x, 9);
      });
    }),
  );
});

test('in the mirror the holes are counted from where the landmark is seen, and the sentence says that it is a mirror', () => {
  for (const turns of [0, 1, 2, 3] as const) {
    const seen = turnPanel(box, turns, true);
    for (const { slot } of seen.slots) {
      const way = wayToSlot(seen, slot.id);
      // Walked by hand: slots of the row in order of x, from the side that is named.
      const centre = (one: (typeof seen.slots)[number]) => one.y + one.height / 2;
      const me = seen.slots.find((one) => one.slot.id === slot.id)!;
      const row = seen.slots
        .filter((one) => Math.abs(centre(one) - centre(me)) < 3)
        .sort((a, b) => a.x - b.x);
      const fromLeft = row.indexOf(me) + 1;
      expect(way.hole).toBe(way.holesFrom === 'left' ? fromLeft : row.length - fromLeft + 1);
      expect(slotSentence(seen, slot.id)).toMatch(/^Mirrored, seen from behind\. With the hinge/);
    }
  }
  expect(turnPanel(box, 0, true).landmarkEdge).toBe('right');
});

test('the drawing for paper holds every slot in its place, escapes what is printed, and says when it is mirrored', () => {
  const odd = {
    ...box,
    name: 'Box <1> & "2"',
    slots: box.slots.map((slot) => ({ ...slot, meaning: 'A & B <x>' })),
  };
  const svg = panelSvg(turnPanel(odd, 1));
  expect(svg.match(/<rect /g)).toHaveLength(box.slots.length + 1);
  expect(svg).toContain('A &amp; B &lt;x&gt;');
  expect(svg).toContain('Box &lt;1&gt; &amp; &quot;2&quot;');
  expect(svg).not.toContain('MIRRORED');
  expect(panelSvg(turnPanel(odd, 1, true))).toContain('MIRRORED');
});

describe('what is in a slot', () => {
  const entry = (state: SlotStateEntry['state'], more: Partial<SlotStateEntry> = {}): SlotStateEntry => ({
    id: 'e',
    at: '2026-11-20T10:00:00.000Z',
    person: 'Imre Pellow',
    panel: box.id,
    slot: 'fuse-3',
    state,
    evidence: 'seen',
    ...more,
  });
  test('nothing is recorded without evidence, and an empty hole is no evidence of "not ordered"', () => {
    expect(stateProblem('fitted', ' ')).toContain('how that is known');
    expect(stateProblem('not-ordered', 'empty')).toContain('does not show');
    expect(stateProblem('not-ordered', 'It is empty.')).toContain('Give the source');
    expect(stateProblem('abandoned', 'nothing in it')).toContain('does not show');
    expect(stateProblem('not-ordered', 'build list of 2018')).toBeNull();
    expect(stateProblem('empty', 'empty')).toBeNull();
  });
  test('the latest counts, other boxes and the map itself stay as they were', () => {
    const seen = withStates(box, [
      entry('missing'),
      entry('fitted', { found: { ratingAmps: 15 } }),
      entry('abandoned', { panel: 'other' }),
    ]);
    expect(seen.slots.find((slot) => slot.id === 'fuse-3')).toMatchObject({
      state: 'fitted',
      found: { ratingAmps: 15 },
    });
    expect(box.slots.find((slot) => slot.id === 'fuse-3')?.found).toBeUndefined();
    const again = withStates(seen, [entry('fitted')]);
    expect(again.slots.find((slot) => slot.id === 'fuse-3')?.found).toBeUndefined();
    expect(seen.slots.filter((slot) => slot.state === 'abandoned')).toEqual([]);
  });
});
