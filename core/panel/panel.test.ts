import fc from 'fast-check';
import { demoText } from '../../testing/circuits';
import { checkPanelSetText } from '../format/checkPanelSet';
import { searchSlots } from './search';
import { slotSentence, wayToSlot } from './sentence';
import { type Turns, turnPanel, turnsForLandmark } from './turn';

function vanPanels() {
  const checked = checkPanelSetText(demoText('van.panel-set.json'));
  if (!checked.ok) throw new Error('The van has problems.');
  return checked.value.panels;
}

const turnsArbitrary = fc.constantFrom<Turns>(0, 1, 2, 3);

describe('turning a box', () => {
  test('four quarter turns bring every slot back, and no turn mirrors', () => {
    for (const panel of vanPanels()) {
      const upright = turnPanel(panel, 0);
      for (const turns of [1, 2, 3] as const) {
        const seen = turnPanel(panel, turns);
        // A mirror would change the sign of the area spanned by three slots; a turn keeps it.
        const area = (slots: typeof seen.slots) => {
          const [p, q, r] = [slots[0]!, slots[1]!, slots[slots.length - 1]!].map((one) => ({
            x: one.x + one.width / 2,
            y: one.y + one.height / 2,
          }));
          return (q!.x - p!.x) * (r!.y - p!.y) - (q!.y - p!.y) * (r!.x - p!.x);
        };
        expect(area(seen.slots)).toBeCloseTo(area(upright.slots), 6);
        for (const one of seen.slots) {
          expect(one.x).toBeGreaterThanOrEqual(0);
          expect(one.x + one.width).toBeLessThanOrEqual(seen.width + 0.01);
          expect(one.y + one.height).toBeLessThanOrEqual(seen.height + 0.01);
        }
      }
    }
  });

  test('the landmark comes to the edge it is seen at', () => {
    for (const panel of vanPanels()) {
      for (const edge of ['top', 'right', 'bottom', 'left'] as const) {
        expect(turnPanel(panel, turnsForLandmark(panel, edge)).landmarkEdge).toBe(edge);
      }
    }
  });
});

describe('the sentence to a slot', () => {
  test('counting as it says leads to the slot, for every slot in every turn', () => {
    fc.assert(
      fc.property(fc.constantFrom(...vanPanels()), turnsArbitrary, fc.nat(), (panel, turns, pick) => {
        const seen = turnPanel(panel, turns);
        const wanted = seen.slots[pick % seen.slots.length]!;
        const way = wayToSlot(seen, wanted.slot.id);
        // Walk the geometry with the eye alone: rows of this type by height, holes by distance from the side.
        const kind = seen.slots.filter((one) => one.slot.type === wanted.slot.type);
        const middle = (one: typeof wanted) => one.y + one.height / 2;
        const heights = [...new Set(kind.map((one) => Math.round(middle(one))))].sort((a, b) => a - b);
        const rowHeights = heights.filter((height, index) => index === 0 || height - heights[index - 1]! > 4);
        const fromTop = way.rowsFrom === 'top' ? way.row - 1 : rowHeights.length - way.row;
        const row = kind.filter((one) => Math.abs(middle(one) - rowHeights[fromTop]!) <= 4);
        const sorted = row.sort((a, b) => (way.holesFrom === 'left' ? a.x - b.x : b.x - a.x));
        expect(sorted[way.hole - 1]?.slot.id).toBe(wanted.slot.id);
        expect(slotSentence(seen, wanted.slot.id)).toContain(panel.landmark.name);
      }),
      { numRuns: 400 },
    );
  });

  test('reads as a person would say it', () => {
    const cab = vanPanels().find((panel) => panel.id === 'cab')!;
    expect(slotSentence(turnPanel(cab, 0), 'fuse-14')).toBe(
      'With the hinge to the left: second fuse row from the top, sixth hole from the hinge, counting the empty one — brown 7.5 A, printed “H MIR”, right of fuse 13.',
    );
  });
});

describe('finding a slot', () => {
  const panels = vanPanels();
  const first = (text: string) => searchSlots(panels, text)[0];

  test('fuse 4, relay 4 and a bare 4 are told apart', () => {
    expect(searchSlots(panels, 'relay 4').every((hit) => hit.slot.type === 'relay')).toBe(true);
    expect(searchSlots(panels, 'fuse 4').every((hit) => hit.slot.type === 'fuse')).toBe(true);
    const types = new Set(searchSlots(panels, '4').map((hit) => hit.slot.type));
    expect([...types].sort()).toEqual(['fuse', 'relay']);
  });

  test.each([
    'H MIR',
    'mirror heating',
    'heated mirrors',
    'Left mirror heater',
    'F14',
    'fuse 14',
    'htd mirrors',
  ])('“%s” finds fuse 14 of the cab box', (text) => {
    expect(searchSlots(panels, text).some((hit) => hit.slot.id === 'fuse-14' && hit.panel.id === 'cab')).toBe(
      true,
    );
  });

  test('a synonym of the other dialect finds the same slot', () => {
    expect(first('refrigerator')?.slot.id).toBe('fuse-35');
    expect(first('cooler')?.slot.id).toBe('fuse-35');
    expect(searchSlots(panels, 'brake lights')[0]?.slot.id).toBe('fuse-10');
  });

  test('nonsense finds nothing', () => {
    expect(searchSlots(panels, 'zzz')).toEqual([]);
    expect(searchSlots(panels, '  ')).toEqual([]);
  });
});
