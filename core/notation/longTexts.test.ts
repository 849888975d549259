/** Texts that nobody means, as long as they may be: read in time that grows with their length, and stopped in words. */
import { PART_LIMIT } from '../format/bounds';
import { readNotation, TEXT_LIMIT } from './read';

const HEAD = 'circuit long "Long" 12 V\n';

const SHAPES: readonly (readonly [string, (n: number) => string])[] = [
  ['batteries', (n) => 'battery, '.repeat(n)],
  ['parts on one line', (n) => `battery, ${'fuse, '.repeat(n)}`],
  ['legs of one splice', (n) => `battery, ${'splice J1, '.repeat(n)}`],
  ['contacts of one switch', (n) => `battery, switch S1 ${'1>2:on '.repeat(n)}`],
  ['words of one part', (n) => `battery, fuse F1 ${'odd '.repeat(n)}`],
  [
    'switches of one condition',
    (n) => `when on: ${Array.from({ length: n }, (_, i) => `S${i} on`).join(', ')}`,
  ],
  ['conditions', (n) => Array.from({ length: n }, (_, i) => `when c${i}: key run`).join('\n')],
  ['lines that end in the air', (n) => Array.from({ length: n }, (_, i) => `battery, fuse F${i}`).join('\n')],
  [
    'names that lead nowhere',
    (n) => Array.from({ length: n }, (_, i) => `battery, fuse F1, to odd${i}`).join('\n'),
  ],
  [
    'points joined in a chain',
    (n) => Array.from({ length: n }, (_, i) => `from p${n - i}, to p${n - i - 1}`).join('\n'),
  ],
  ['open quotes', (n) => 'fuse "open\n'.repeat(n)],
  ['commas', (n) => ','.repeat(n)],
  ['brackets', (n) => `battery, ${'[p] '.repeat(n)}`],
];

/** Milliseconds, the least of three. */
function took(text: string): number {
  const times = [1, 2, 3].map(() => {
    const started = performance.now();
    readNotation(text);
    return performance.now() - started;
  });
  return Math.min(...times);
}

test.each(SHAPES)('%s: eight times the text takes no sixty-four times as long', (_, shape) => {
  const short = HEAD + shape(500);
  const long = HEAD + shape(4000);
  took(short);
  // A quadratic reader would give 64; two milliseconds are below what can be told.
  expect(took(long) / Math.max(2, took(short))).toBeLessThan(30);
});

test.each(SHAPES)('%s: the longest text of all is answered', (_, shape) => {
  const longest = (HEAD + shape(60_000)).slice(0, TEXT_LIMIT);
  const { circuit, problems } = readNotation(longest);
  expect(circuit === null || problems.length === 0).toBe(true);
  expect(problems.length).toBeLessThan(400);
});

test('more parts than a circuit can have are said as that, where they begin', () => {
  const { circuit, problems } = readNotation(`${HEAD}battery, ${'fuse, '.repeat(PART_LIMIT + 50)}earth`);
  expect(circuit).toBeNull();
  expect(problems.at(-1)?.message).toContain(`at most ${PART_LIMIT} parts`);
});
