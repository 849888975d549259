/** The row of a slot on a card: its holes lie where the box, turned so, has them. */
import { boxOf } from '../../testing/panels';
import type { Panel } from '../format';
import { endsAsHeld } from './ends';
import { slotScene } from './slotScene';
import type { Turns } from './turn';

const FRAME = { x: 40, y: 46, width: 280, height: 60 };
const TURNS: readonly Turns[] = [0, 1, 2, 3];

const box = boxOf(24, 8).panels[0]! as Panel;
const withFed = (y: number): Panel => ({
  ...box,
  slots: box.slots.map((slot) => ({ ...slot, pins: [{ role: 'feed', x: slot.width / 2, y }] })),
});

test.each(TURNS)(
  'turned %i quarters: the slot is in sight, nothing leaves the frame, and the fed end is where it is held',
  (turns) => {
    for (const { id, height } of box.slots) {
      const fed = withFed(0);
      const scene = slotScene(fed, id, turns, FRAME)!;
      const here = scene.slots.filter((one) => one.here);
      expect(here.map(({ slot }) => slot.id)).toEqual([id]);
      for (const { x, y, width, height: high } of scene.slots) {
        expect(x).toBeGreaterThanOrEqual(FRAME.x - 0.01);
        expect(y).toBeGreaterThanOrEqual(FRAME.y - 0.01);
        expect(x + width).toBeLessThanOrEqual(FRAME.x + FRAME.width + 0.01);
        expect(y + high).toBeLessThanOrEqual(FRAME.y + FRAME.height + 0.01);
      }
      const [one] = here;
      const into = scene.spots('in');
      const out = scene.spots('out');
      expect([into.sure, out.sure]).toEqual([true, true]);
      // The drawn upper end is fed: by how the box is held it lies up, right, down or left.
      const word = endsAsHeld(fed, id, turns).first;
      const side = {
        upper: into.y < one!.y + one!.height / 2,
        lower: into.y > one!.y + one!.height / 2,
        left: into.x < one!.x + one!.width / 2,
        right: into.x > one!.x + one!.width / 2,
      }[word];
      expect({ id, word, side }).toEqual({ id, word, side: true });
      expect(Math.hypot(into.x - out.x, into.y - out.y)).toBeGreaterThan(5);
      expect(height).toBeGreaterThan(0);
    }
  },
);

test('which end is fed is not made up: without it the middle of the slot is shown, and not as sure', () => {
  const scene = slotScene(box, box.slots[5]!.id, 0, FRAME)!;
  const [here] = scene.slots.filter((one) => one.here);
  for (const pin of ['in', 'out', '30'])
    expect(scene.spots(pin)).toEqual({
      x: here!.x + here!.width / 2,
      y: here!.y + here!.height / 2,
      sure: false,
    });
  expect(slotScene(box, 'no-such-slot', 0, FRAME)).toBeNull();
});
