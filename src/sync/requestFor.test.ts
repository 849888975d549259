import { requestFor } from './requestFor';

test('the same content goes on with its id, another one with a new one', () => {
  const first = requestFor(null, 'fan dead');
  expect(requestFor(first, 'fan dead')).toBe(first);
  const second = requestFor(first, 'fan weak');
  expect(second.id).not.toBe(first.id);
  expect(second.of).toBe('fan weak');
});
