import { demoText } from '../../testing/circuits';
import { seeded } from '../../testing/randomCircuit';
import { checkPanelSetText } from '../format/checkPanelSet';
import type { Panel, Slot } from '../format/panelSchema';
import { searchSlots } from './search';
import { forSister } from './sister';
import { type IndexedSlot, SlotIndex } from './slotIndex';

const checked = checkPanelSetText(demoText('van.panel-set.json'));
if (!checked.ok) throw new Error('the demo panel set does not check');
const { panels } = checked.value;
const van = panels.flatMap((panel) =>
  panel.slots.map((slot): IndexedSlot => ({ vehicle: 'van', panel, slot })),
);

/** Two hundred vehicles of a hundred slots, words drawn from those of the demo. */
function yard(): IndexedSlot[] {
  const random = seeded(77);
  const words = [
    'fan',
    'pump',
    'mirror',
    'heater',
    'lamp',
    'hatch',
    'fridge',
    'till',
    'jacket',
    'step',
    'winch',
    'probe',
  ];
  const pick = () => words[Math.floor(random() * words.length)]!;
  return Array.from({ length: 200 }, (_, v) => v).flatMap((v) => {
    const slots = Array.from(
      { length: 100 },
      (_, i): Slot => ({
        id: `fuse-${i + 1}`,
        type: i % 9 === 0 ? 'relay' : 'fuse',
        number: String(i + 1),
        label: pick().slice(0, 3).toUpperCase(),
        meaning: `${pick()} ${pick()} ${v % 7 === 0 ? 'left' : 'right'}`,
        family: 'mini',
        ratingAmps: [5, 10, 15, 20][i % 4]!,
        state: 'fitted',
        x: 0,
        y: 0,
        width: 4,
        height: 11,
      }),
    );
    const panel: Panel = { ...panels[0]!, id: `box-${v}`, slots };
    return slots.map((slot): IndexedSlot => ({ vehicle: `v${v}`, panel, slot }));
  });
}

test('the index finds what the plain search finds, for numbers, labels, meanings, synonyms, colours', () => {
  const index = new SlotIndex(van);
  for (const text of [
    'fuse 14',
    'F14',
    '14',
    'relay 4',
    'mirror',
    'H MIR',
    'heated mirrors',
    'proofer fan',
    'blue 15',
    'fridge',
    'zzz',
  ]) {
    const plain = searchSlots(panels, text, 50).map((hit) => `${hit.panel.id} ${hit.slot.id} ${hit.because}`);
    const indexed = index.find(text, 50).map((hit) => `${hit.panel.id} ${hit.slot.id} ${hit.because}`);
    expect({ text, hits: indexed.sort() }).toEqual({ text, hits: plain.sort() });
  }
});

test('two hundred vehicles of a hundred slots: the same hits, many times faster than reading every slot', () => {
  const slots = yard();
  const index = new SlotIndex(slots);
  const boxes = [...new Set(slots.map((one) => one.panel))];
  const queries = ['fuse 14', 'mirror left', 'winch', 'jacket probe', 'pump 10'];
  let read = 0;
  let found = 0;
  for (const query of queries) {
    const a = performance.now();
    const plain = searchSlots(boxes, query, 20_000).length;
    const b = performance.now();
    const hits = index.find(query, 20_000).length;
    const c = performance.now();
    read += b - a;
    found += c - b;
    expect(hits).toBe(plain);
  }
  process.stdout.write(
    `slot search over 200 vehicles x 100 slots: ${(found / queries.length).toFixed(2)} ms a query, ${(read / found).toFixed(0)} times as fast as reading every slot\n`,
  );
  expect(found).toBeLessThan(read);
});

test('a sister’s map claims nothing: unverified, from a sibling, holes unknown', () => {
  const copy = forSister(checked.ok ? checked.value : (null as never), 'Bakery van');
  const all = copy.panels.flatMap((panel) => panel.slots);
  expect(all.length).toBe(van.length);
  expect(
    all.every((slot) => slot.confirmed === false && slot.source === 'sibling-vehicle' && !slot.found),
  ).toBe(true);
  expect(
    all.some((slot) => slot.state === 'empty' || slot.state === 'not-ordered' || slot.state === 'spare'),
  ).toBe(false);
  expect(all[0]?.applies).toBe('copied from Bakery van');
});
