/** What is written of a part: only what says something else than the map is learned, each in words. */
import type { CircuitPart, PartOf } from '#core/format';
import { learnedFrom } from './FactForm';

const fuse = {
  id: 'f1',
  kind: 'fuse',
  name: 'F1',
  pins: { in: 'a', out: 'b' },
  ratingAmps: 10,
  slot: { panel: 'cab', slot: 'fuse-1' },
} as unknown as CircuitPart;
const wire = {
  id: 'w1',
  kind: 'wire',
  name: 'Feed',
  pins: { a: 'a', b: 'b' },
  colour: 'RD',
  sizeMm2: 2.5,
  joints: ['behind the panel'],
} as unknown as PartOf<'wire'>;

const words = (more: object = {}) => ({ name: '', colour: '', slot: '', amounts: {}, ...more });
const slotName = (id: string) => `slot ${id}`;

describe('while tracing', () => {
  test('what the map says already is not learned again', () => {
    const same = words({ name: 'F1', slot: 'cab/fuse-1', amounts: { ratingAmps: '10' } });
    expect(learnedFrom(fuse, same, slotName)).toEqual({ ok: true, learned: {}, said: [] });
    expect(learnedFrom(fuse, words(), slotName)).toEqual({ ok: true, learned: {}, said: [] });
  });

  test('what is new is learned and said', () => {
    const fresh = words({ name: 'Fan fuse', slot: 'cab/fuse-2', amounts: { ratingAmps: '7,5' } });
    expect(learnedFrom(fuse, fresh, slotName)).toEqual({
      ok: true,
      learned: { name: 'Fan fuse', ratingAmps: 7.5, slot: { panel: 'cab', slot: 'fuse-2' } },
      said: ['is “Fan fuse”', 'rating 7.5 A', 'sits in slot cab/fuse-2'],
    });
    expect(learnedFrom(wire, words({ colour: 'bk/wh' }), slotName)).toMatchObject({
      learned: { colour: 'BK/WH' },
    });
    // A fuse has no colour of a wire.
    expect(learnedFrom(fuse, words({ colour: 'bk' }), slotName)).toMatchObject({ learned: {} });
  });

  test('a number that is none names its field', () => {
    expect(learnedFrom(fuse, words({ amounts: { ratingAmps: 'big' } }), slotName)).toMatchObject({
      ok: false,
      field: 'amounts.ratingAmps',
    });
  });
});
