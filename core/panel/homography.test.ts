import fc from 'fast-check';
import { homography, mapped, matrix3d } from './homography';

const square = [
  { x: 0, y: 0 },
  { x: 160, y: 0 },
  { x: 160, y: 100 },
  { x: 0, y: 100 },
];

test('the four corners go where they were said to, whatever the slant', () => {
  const near = fc.double({ min: -30, max: 30, noNaN: true });
  fc.assert(
    fc.property(fc.tuple(near, near, near, near, near, near, near, near), (shift) => {
      const corners = square.map((spot, i) => ({
        x: spot.x * 4 + shift[2 * i]!,
        y: spot.y * 4 + shift[2 * i + 1]!,
      }));
      const h = homography(corners, square)!;
      corners.forEach((corner, i) => {
        const to = mapped(h, corner);
        expect(to.x).toBeCloseTo(square[i]!.x, 6);
        expect(to.y).toBeCloseTo(square[i]!.y, 6);
      });
      // Straight lines stay straight: the middle of an edge stays on that edge.
      const middle = mapped(h, {
        x: (corners[0]!.x + corners[1]!.x) / 2,
        y: (corners[0]!.y + corners[1]!.y) / 2,
      });
      expect(middle.y).toBeCloseTo(0, 6);
    }),
  );
});

test('corners on one line give no map', () => {
  const line = [0, 1, 2, 3].map((x) => ({ x, y: x }));
  expect(homography(line, square)).toBeNull();
  expect(homography(square.slice(1), square)).toBeNull();
});

test('what stays where it is needs no turning', () => {
  const numbers = matrix3d(homography(square, square)!)
    .match(/-?[\d.e-]+/g)!
    .slice(1)
    .map(Number);
  [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1].forEach((value, i) => {
    expect(numbers[i]).toBeCloseTo(value, 9);
  });
});
