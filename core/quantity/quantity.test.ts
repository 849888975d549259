import fc from 'fast-check';
import { formatQuantity, parseReading, readNumber } from './quantity';

describe('what a technician types', () => {
  test.each([
    ['12.4', 'V', 12.4, false],
    ['12,4', 'V', 12.4, false],
    ['-12.3 V', 'V', -12.3, true],
    ['5.5m', 'V', 0.0055, false],
    ['5,5 mV', 'V', 0.0055, true],
    ['0.3 ohm', 'Ω', 0.3, true],
    ['4.7k', 'Ω', 4700, false],
    ['.5', 'V', 0.5, false],
    ['−0.2', 'V', -0.2, false],
    ['12.', 'V', 12, false],
  ] as const)('%s on a card in %s is %d', (text, unit, value, unitWritten) => {
    expect(parseReading(text, unit)).toEqual({ ok: true, value, unit, unitWritten });
  });

  test.each(['OL', 'ol', 'O.L', 'over limit'])('%s is over limit', (text) => {
    expect(parseReading(text, 'Ω')).toMatchObject({ ok: true, overLimit: true });
  });

  test('1,200 is refused with both meanings', () => {
    const refused = parseReading('1,200', 'Ω');
    expect(refused).toMatchObject({ ok: false, code: 'ambiguous-thousands' });
    if (!refused.ok) expect(refused.message).toMatch(/1200 or 1\.2/);
  });

  test.each([
    ['', 'empty'],
    ['twelve', 'not-a-number'],
    ['1.2.3', 'not-a-number'],
    ['12 bananas', 'not-a-number'],
    ['3 A', 'wrong-unit'],
    ['5000', 'out-of-range'],
    ['-', 'not-a-number'],
  ])('%j is refused as %s, in words', (text, code) => {
    const refused = parseReading(text, 'V');
    expect(refused).toMatchObject({ ok: false, code });
    if (!refused.ok) expect(refused.message).toMatch(/^[A-Z“0-9-].+\.$/);
  });

  test('no text makes it throw or give a number that is none', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom('V', 'Ω', 'A' as const), (text, unit) => {
        const parsed = parseReading(text, unit as 'V');
        if (parsed.ok && 'value' in parsed) expect(Number.isFinite(parsed.value)).toBe(true);
      }),
    );
  });

  test('what is there is never printed as nothing, down to what no meter shows', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('V', 'A', 'Ω' as const),
        fc.double({ min: 1e-6, max: 900, noNaN: true }),
        (unit, value) => {
          const printed = formatQuantity(value, unit as 'V');
          const again = parseReading(printed, unit as 'V');
          const read = again.ok && 'value' in again ? again.value : 0;
          expect(Math.abs(read - value) / value).toBeLessThan(0.5);
        },
      ),
    );
    expect(formatQuantity(0.004, 'A')).toBe('4 mA');
    expect(formatQuantity(-0.0035, 'A')).toBe('-3.5 mA');
    expect(formatQuantity(0.00025, 'V')).toBe('250 µV');
    expect(formatQuantity(0.004, 'Ω')).toBe('4 mΩ');
    expect(formatQuantity(0, 'A')).toBe('0.00 A');
  });

  test('what is printed can be read again', () => {
    fc.assert(
      fc.property(fc.double({ min: -60, max: 60, noNaN: true }), (volts) => {
        const again = parseReading(formatQuantity(volts, 'V'), 'V');
        expect(again.ok && 'value' in again ? again.value : null).toBeCloseTo(volts, 1);
      }),
    );
  });
});

describe('numbers of a form', () => {
  test.each([
    ['1,5', 1.5],
    ['1.5', 1.5],
    [' 12 ', 12],
    ['.5', 0.5],
    ['0,750', 0.75],
    ['2.5 mm²', 2.5],
    ['2.5mm²', 2.5],
  ])('%s is %s', (text, value) => {
    expect(readNumber(text, { above: 0, most: 240, unit: 'mm²' })).toEqual({ ok: true, value });
  });
  test.each([
    ['', { above: 0, most: 5 }, 'Write a number above 0 to 5.'],
    ['abc', { least: 1, most: 5, unit: 'A' }, '“abc” is no number. Write a number from 1 to 5 A.'],
    ['1,200', { above: 0, most: 5000 }, 'can mean 1200 or 1.2'],
    ['0', { above: 0, most: 5 }, 'not 0.'],
    ['6', { least: 1, most: 5 }, 'not 6.'],
    ['−1', { least: 0, most: 5 }, 'not -1.'],
    ['2.5', { least: 1, most: 5, whole: true }, 'Write a whole number from 1 to 5, not 2.5.'],
    ['1e9', { above: 0, most: 5 }, 'is no number'],
    ['.', { above: 0, most: 5 }, 'is no number'],
  ])('“%s” is refused in words', (text, range, words) => {
    expect(readNumber(text, range)).toMatchObject({ ok: false, message: expect.stringContaining(words) });
  });
  test('what is taken lies in its range, whatever is typed, and prints back to itself', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 12 }), (text) => {
        const read = readNumber(text, { least: 0, most: 500 });
        if (read.ok) expect(read.value >= 0 && read.value <= 500).toBe(true);
        else expect(read.message).not.toBe('');
      }),
    );
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 50_000 }), (hundredths) => {
        expect(readNumber(String(hundredths / 100), { least: 0, most: 500 })).toEqual({
          ok: true,
          value: hundredths / 100,
        });
      }),
    );
  });
});
