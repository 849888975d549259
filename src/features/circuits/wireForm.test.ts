/** What is written of a wire in the ledger, as the fields that change. */
import type { PartOf } from '#core/format';
import { changedFields, wordsOf } from './WireForm';

const wire = {
  id: 'w1',
  kind: 'wire',
  name: 'Feed',
  pins: { a: 'a', b: 'b' },
  colour: 'RD',
  sizeMm2: 2.5,
  joints: ['behind the panel'],
} as unknown as PartOf<'wire'>;

test('a form that was only looked at changes nothing', () => {
  expect(changedFields(wire, wordsOf(wire))).toEqual({ ok: true, fields: {} });
});

test('what is emptied is taken away, what is written is kept', () => {
  const written = { ...wordsOf(wire), colour: 'rd/bk', sizeMm2: '', lengthMetres: '3,5', joints: '' };
  expect(changedFields(wire, { ...written, state: 'cut', endA: ' under the seat ' })).toEqual({
    ok: true,
    fields: {
      colour: 'RD/BK',
      endA: 'under the seat',
      state: 'cut',
      joints: [],
      sizeMm2: null,
      lengthMetres: 3.5,
    },
  });
  expect(changedFields(wire, { ...written, lengthMetres: '-1' })).toMatchObject({
    ok: false,
    field: 'lengthMetres',
    message: expect.stringContaining('Length'),
  });
});
