import fc from 'fast-check';
import { profileOf } from './profile';

const stop = (expected: number, measured: number | null = null) => ({ expected, measured });

describe('volts along a run', () => {
  test('the loss stands between the two stops that were measured around it, less what is lost anyhow', () => {
    const { losses, supply } = profileOf([
      stop(12.6, 12.6),
      stop(12.5),
      stop(12.4, 9.1),
      stop(0.3, 0.2),
      stop(0, 0),
    ]);
    expect(supply).toBe(12.6);
    expect(losses).toHaveLength(1);
    expect(losses[0]).toMatchObject({ from: 0, to: 2 });
    expect(losses[0]!.volts).toBeCloseTo(3.3, 9);
  });

  test('nothing is lost where all is as expected, or where one stop alone was read', () => {
    expect(profileOf([stop(12.6, 12.6), stop(12.4, 12.4), stop(0, 0)]).losses).toEqual([]);
    expect(profileOf([stop(12.6), stop(12.4, 3), stop(0)]).losses).toEqual([]);
    expect(profileOf([])).toEqual({ supply: 0, losses: [], line: [] });
  });

  test('between two readings the line is straight, beyond them there is none', () => {
    expect(profileOf([stop(12), stop(12, 12), stop(12), stop(12, 8), stop(0)]).line).toEqual([
      null,
      12,
      10,
      8,
      null,
    ]);
  });

  test('of readings that fall, the losses and what is expected to be lost add up to the fall of all', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.double({ min: 0, max: 3, noNaN: true }), fc.double({ min: 0.2, max: 3, noNaN: true })),
          {
            minLength: 2,
            maxLength: 12,
          },
        ),
        (drops) => {
          let expected = 40;
          let measured = 40;
          const stops = drops.map(([usual, more]) => {
            const one = stop(expected, measured);
            expected -= usual / 12;
            measured -= usual / 12 + more;
            return one;
          });
          const { losses } = profileOf(stops);
          const first = stops[0]!;
          const last = stops.at(-1)!;
          const all = first.measured! - last.measured! - (first.expected - last.expected);
          const small = stops.length * 0.1 * (40 / 12);
          const sum = losses.reduce((total, { volts }) => total + volts, 0);
          expect(sum).toBeLessThanOrEqual(all + 1e-9);
          expect(sum).toBeGreaterThanOrEqual(all - small);
        },
      ),
    );
  });
});
