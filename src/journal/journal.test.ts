/** What the server writes down about itself says what failed, and nothing that people typed. */
import { told } from './journal';

test('of a failed query the database’s word stands, its values do not', () => {
  const cause = Object.assign(new Error('duplicate key value violates unique constraint "vehicles_plate"'), {
    code: '23505',
    detail: 'Key (plate)=(MB 414) already exists.',
  });
  const error = new Error('Failed query: insert into vehicles values ($1)\nparams: Owner’s telephone', {
    cause,
  });
  const line = told(error);
  expect(line).toMatchObject({ code: '23505', message: cause.message });
  expect(JSON.stringify(line)).not.toMatch(/telephone|MB 414/);
});

test('whatever is thrown is told', () => {
  expect(told('no room')).toEqual({ type: 'string', message: 'no room' });
  expect(told(new TypeError('x is no function'))).toMatchObject({
    type: 'TypeError',
    message: 'x is no function',
  });
  expect(told(undefined)).toEqual({ type: 'undefined', message: 'undefined' });
});
