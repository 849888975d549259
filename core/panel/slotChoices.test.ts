import { boxOf } from '../../testing/panels';
import { occupantsOf, slotChoices, slotKey } from './slotChoices';

const { panels } = boxOf(2, 2);
const panel = panels[0]!;
const [first, second] = panel.slots.filter(({ type }) => type === 'fuse');
const at = (slot: string) => ({ panel: panel.id, slot });

test('a fuse may sit in any fuse slot of any box, and in no other', () => {
  const choices = slotChoices(panels, 'fuse');
  expect(choices.map(({ slot }) => slot.slot)).toEqual(
    panel.slots.filter(({ type }) => type === 'fuse').map(({ id }) => id),
  );
  expect(new Set(choices.map(({ id }) => id)).size).toBe(choices.length);
  expect(slotChoices(panels, 'lamp')).toEqual([]);
});

test('in a slot may sit what is of its kind: first what sits nowhere, and what sits here is said', () => {
  const parts = [
    { id: 'F1', name: 'Fan fuse', kind: 'fuse', slot: at(first!.id) },
    { id: 'F2', name: 'Lamp fuse', kind: 'fuse' },
    { id: 'R1', name: 'Relay', kind: 'relay' },
    { id: 'F1', name: 'Fan fuse', kind: 'fuse', slot: at(first!.id) },
  ] as const;
  const here = occupantsOf(parts, panel, first!);
  expect(here.choices.map(({ id }) => id)).toEqual(['F2', 'F1']);
  expect(here.here?.id).toBe('F1');
  expect(occupantsOf(parts, panel, second!).here).toBeNull();
  expect(slotKey(here.here!.slot)).toBe(slotKey(at(first!.id)));
});
