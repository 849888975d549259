import fc from 'fast-check';
import { cellText, csvCell } from './csvCell';

test.each(['=1+1', '+44', '-3', '@name', "'=x", "''-1"])(
  '%s is no formula, and comes back as it was',
  (text) => {
    const cell = csvCell(text);
    expect(cell).not.toMatch(/^[=+\-@]/);
    expect(cellText(cell)).toBe(text);
  },
);

test('whatever is written comes back', () => {
  fc.assert(
    fc.property(fc.string(), (text) => {
      const cell = csvCell(text);
      const inner = cell.startsWith('"') ? cell.slice(1, -1).replace(/""/g, '"') : cell;
      expect(cellText(inner)).toBe(text);
    }),
  );
});
