import fc from 'fast-check';
import { cellText, csvCell } from './csvCell';

test.each(['=1+1', '+44', '-3', '@name', "'=x", "''-1", ' =1+1'])(
  '%s is no formula, and comes back as it was',
  (text) => {
    const cell = csvCell(text);
    expect(cell).not.toMatch(/^\s*[=+\-@]/);
    expect(cellText(cell)).toBe(text);
  },
);

test.each(['\r=1+1', '\n=1+1', '\t@x'])(
  'a cell that begins with a line end or a tab is no formula: %j',
  (text) => {
    expect(csvCell(text)).toBe(`"'${text}"`);
  },
);

test.each([';', ',', '\t'])('a formula behind the separator %j stays inside its cell', (separator) => {
  const text = `Fan${separator}=1+1`;
  const cell = csvCell(text);
  expect(cell).toBe(`"${text}"`);
});

test('whatever is written comes back', () => {
  fc.assert(
    fc.property(fc.string(), (text) => {
      const cell = csvCell(text);
      const inner = cell.startsWith('"') ? cell.slice(1, -1).replace(/""/g, '"') : cell;
      expect(cellText(inner)).toBe(text);
    }),
  );
});
