import { shortCodeProblem } from './shortCode';

test.each([
  '0000',
  '1111',
  '88888888',
  '1234',
  '4321',
  '7890',
  '0987',
  '1212',
  '1122',
  '5005',
  '1987',
  '2580',
])('%s is guessed first', (code) => {
  expect(shortCodeProblem(code)).toMatch(/guessed first/);
});

test.each(['4711', '1357', '9025', '120486', '73194620'])('%s may be taken', (code) => {
  expect(shortCodeProblem(code)).toBeNull();
});

test.each(['', '123', '123456789', '12a4', '٤٧١١'])('“%s” is no short code', (code) => {
  expect(shortCodeProblem(code)).toBe('A short code has 4 to 8 digits.');
});
