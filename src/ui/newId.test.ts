import { randomUUID } from 'node:crypto';
import { isUuid } from '#core/format/uuid';
import { newId } from './newId';

test('what the program makes are ids, each another', () => {
  const made = Array.from({ length: 200 }, newId);
  expect(made.every(isUuid)).toBe(true);
  expect(new Set(made).size).toBe(200);
  expect(isUuid(randomUUID())).toBe(true);
});

test.each([
  '------------------------------------',
  'not-an-id',
  '',
  null,
  7,
  '963BD642-6C03-4C65-8E28-B311459961D4',
  '963bd642-6c03-4c65-8e28-b311459961d4 ',
])('%j is no id', (text) => {
  expect(isUuid(text)).toBe(false);
});
