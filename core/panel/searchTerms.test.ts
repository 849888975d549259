import { demoText } from '../../testing/circuits';
import { seeded } from '../../testing/randomCircuit';
import { checkPanelSetText } from '../format/checkPanelSet';
import type { Panel, Slot } from '../format/panelSchema';
import { searchSlots } from './search';
import { meets, nameQuestion, nameWords, slotQuestion, slotWords } from './searchTerms';
import { forSister } from './sister';

interface IndexedSlot {
  readonly vehicle: string;
  readonly panel: Panel;
  readonly slot: Slot;
}

const checked = checkPanelSetText(demoText('van.panel-set.json'));
if (!checked.ok) throw new Error('the demo panel set does not check');
const { panels } = checked.value;
const van = panels.flatMap((panel) =>
  panel.slots.map((slot): IndexedSlot => ({ vehicle: 'van', panel, slot })),
);

/** Forty vehicles of a hundred slots, words drawn from those of the demo. */
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
  return Array.from({ length: 40 }, (_, v) => v).flatMap((v) => {
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

const QUERIES = [
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
  'mirror left',
  'winch',
  'jacket probe',
  'pump 10',
  'fuse 10',
  '10a',
  'zzz',
];

test('whatever slot the plain search takes meets the question, on the demo and on forty vehicles', () => {
  const slots = [...van, ...yard()];
  let taken = 0;
  let met = 0;
  for (const text of QUERIES) {
    const question = slotQuestion(text)!;
    const hits = slots.filter(({ slot }) => meets(slotWords(slot), question));
    const boxes = [...new Set(slots.map((one) => one.panel))];
    const plainly = searchSlots(boxes, text, 30_000);
    const asked = new Set(hits.map(({ slot }) => slot));
    expect([text, plainly.filter(({ slot }) => !asked.has(slot)).map(({ slot }) => slot.id)]).toEqual([
      text,
      [],
    ]);
    taken += plainly.length;
    met += hits.length;
  }
  // The question is no sieve full of holes either.
  expect(met).toBeLessThan(2 * taken);
});

test('every part of a plate is found by its beginning, and words by theirs', () => {
  const words = nameWords('Bakery van', 'MB 41-4');
  for (const text of ['mb414', 'B 414', '41 4', '14', 'bak', 'van bakery']) {
    expect([text, meets(words, nameQuestion(text)!)]).toEqual([text, true]);
  }
  for (const text of ['mb415', 'bakeries', 'van fish']) {
    expect([text, meets(words, nameQuestion(text)!)]).toEqual([text, false]);
  }
  expect(nameQuestion('b')).toBeNull();
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
