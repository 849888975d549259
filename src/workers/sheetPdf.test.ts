/** Sheets and labels as PDF, read back by a package that had no part in making them. */

import sharp from 'sharp';
import { LABEL_SHEETS, labelPlace } from '#core/limits';
import type { Label, Sheet } from '#core/log';
import { readPdf } from '../../testing/pdf';
import { entryTimeWords } from './sheetHead';
import { labelSheet, labelsPdf, type SheetHead, sheetPdf } from './sheetPdf';

const HEAD: SheetHead = {
  kind: 'Hand-over sheet',
  title: 'Fan dead in the proving cabinet',
  vehicle: 'Bakery van · MB 18 OVN',
  shop: 'Pellow & Wray, Marrowby',
  beneath: ['Opened 3 Nov'],
  moment: () => '3 Nov, 14:05',
};
const sheet = (lines: number, more: Partial<Sheet> = {}): Sheet => ({
  standing: 'OPEN: not handed over',
  from: null,
  until: null,
  place: null,
  open: ['no repair is recorded'],
  parts: [
    {
      title: 'Evidence',
      empty: null,
      lines: Array.from({ length: lines }, (_, index) => ({
        words: `Reading ${index + 1}: 0.3 Ω over plug C12, 2.5 mm², −40 °C ≤ t, ▲ ✓`,
        by: { person: 'Imre Pellow', at: '2026-11-03T14:05:00Z' },
        ...(index % 3 === 0 ? { more: `What it means, number ${index + 1}` } : {}),
      })),
    },
    { title: 'Temporary', lines: [], empty: 'Nothing is temporary.' },
  ],
  ...more,
});

test('what stands on the page stands on the paper, with every sign of the trade', async () => {
  const read = readPdf(await sheetPdf(sheet(3), HEAD));
  expect(read.pages).toHaveLength(1);
  expect(read.title).toBe('Hand-over sheet: Fan dead in the proving cabinet');
  for (const words of [
    'Fan dead in the proving cabinet',
    'Bakery van · MB 18 OVN',
    'OPEN: not handed over',
    'Not verified: no repair is recorded.',
    'Reading 2: 0.3 Ω over plug C12, 2.5 mm², −40 °C ≤ t, ▲ ✓ (Imre Pellow, 3 Nov, 14:05)',
    'What it means, number 1',
    'Nothing is temporary.',
    'page 1 of 1',
  ])
    expect(read.text).toContain(words);
  expect(read.pages[0]!.width).toBeCloseTo(210, 0);
  expect(read.pages[0]!.height).toBeCloseTo(297, 0);
});

test('a long sheet loses no line, numbers its pages, and prints nothing beyond the paper’s margins', async () => {
  const read = readPdf(await sheetPdf(sheet(2000), HEAD));
  expect(read.pages.length).toBeGreaterThan(30);
  for (const number of [1, 500, 1234, 2000]) expect(read.text).toContain(`Reading ${number}: `);
  for (let number = 1; number <= 2000; number++) expect(read.text).toContain(`Reading ${number}:`);
  const last = read.pages.length;
  expect(read.text).toContain(`page ${last} of ${last}`);
  for (const { texts, width, height } of read.pages) {
    for (const one of texts) {
      expect(one.x).toBeGreaterThan(10);
      expect(one.x + one.width).toBeLessThan(width - 10);
      expect(one.y).toBeLessThan(height - 8);
    }
  }
});

test('pictures stand two beside each other with their words and numbers, within the paper', async () => {
  const jpeg = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#884422' } })
    .jpeg()
    .toBuffer();
  const photo = (words: string) => ({
    jpeg: new Uint8Array(jpeg),
    width: 400,
    height: 300,
    words,
    marks: [{ x: 0.5, y: 0.5 }],
  });
  const pictures = Array.from({ length: 9 }, (_, index) => photo(`cab box, before, number ${index + 1}`));
  const read = readPdf(await sheetPdf(sheet(2), HEAD, pictures));
  expect(read.pages.length).toBeGreaterThan(1);
  for (let number = 1; number <= 9; number++) expect(read.text).toContain(`number ${number}`);
  const [first, second] = ['before, number 1', 'before, number 2'].map(
    (words) => read.pages.flatMap(({ texts }) => texts).find((one) => one.words.endsWith(words))!,
  );
  expect(second!.x - first!.x).toBeGreaterThan(80);
  expect(second!.y).toBeCloseTo(first!.y, 1);
});

const LABELS: readonly Label[] = Array.from({ length: 30 }, (_, index) => ({
  title: `TEMPORARY ${index + 1}`,
  lines: [
    'Fuse 3, work lamp: 133 % of the design',
    'To be put right by 2026-12-24',
    'Trailer · Work lamp dead',
  ],
}));

// Left and upper edges worked out by hand from the sizes that stand on the packet.
test.each([
  ['24', 0, 0, 0.5],
  ['24', 5, 140, 37.5],
  ['24', 23, 140, 259.5],
  ['14', 1, 106.25, 15.15],
  ['14', 13, 106.25, 243.75],
  ['65', 64, 167.15, 265.1],
])('sheet %s, place %i begins at %f and %f mm', (id, place, x, y) => {
  const at = labelPlace(labelSheet(id), place);
  expect(at.page).toBe(0);
  expect(at.x).toBeCloseTo(x, 5);
  expect(at.y).toBeCloseTo(y, 5);
});

test.each(LABEL_SHEETS.map(({ id }) => id))(
  'labels of sheet %s lie within their edges, in millimetres',
  async (id) => {
    const kind = labelSheet(id);
    const each = kind.columns * kind.rows;
    const first = 4;
    const read = readPdf(await labelsPdf(LABELS, kind, first));
    expect(read.pages).toHaveLength(Math.ceil((LABELS.length + first - 1) / each));
    const [width, height] = kind.label;
    for (const [page, { texts, width: paper, height: long }] of read.pages.entries()) {
      expect(paper).toBeCloseTo(kind.paper[0], 1);
      expect(long).toBeCloseTo(kind.paper[1], 1);
      for (const one of texts) {
        // Every text lies in one of the labels of its page.
        const inside = Array.from({ length: each }, (_, on) => labelPlace(kind, page * each + on)).some(
          (at) =>
            one.x >= at.x - 0.01 &&
            one.x + one.width <= at.x + width + 0.01 &&
            one.y - one.height * 0.7 >= at.y - 0.01 &&
            one.y <= at.y + height + 0.01,
        );
        expect([one.words, inside]).toEqual([one.words, true]);
      }
    }
    // None is left out, and the first stands on the place that was asked for.
    for (const { title } of LABELS) expect(read.text).toContain(title);
    const begins = labelPlace(kind, first - 1);
    const top = read.pages[0]!.texts.find(({ words }) => words.startsWith('TEMPORARY'))!;
    expect(top.x - begins.x).toBeLessThan(4);
    expect(top.y - begins.y).toBeLessThan(10);
  },
);

test('without a label there is a page that says so', async () => {
  expect(readPdf(await labelsPdf([], labelSheet(null))).text).toBe('No label.');
});

test('beside a time that no clock can have shown stands when the server had the entry', () => {
  const arrived = '2026-03-03T10:00:00Z';
  expect(entryTimeWords({ at: arrived }, 'UTC')).toBe('3 Mar 2026 10:00');
  expect(entryTimeWords({ at: '1970-01-01T00:02:00Z', arrived }, 'UTC')).toBe(
    '3 Mar 2026 10:00; its device said 1 Jan 1970 00:02',
  );
});
